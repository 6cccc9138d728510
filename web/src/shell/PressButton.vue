<script setup lang="ts">
/* What is pressed but does not look like a button of its own: a row, a mark, a part of a bar. The place dresses it. It is
   the plain element, since dozens of them are drawn anew at each note that is typed. */
</script>

<template>
  <button type="button"><slot /></button>
</template>
