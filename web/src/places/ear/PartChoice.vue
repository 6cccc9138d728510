<script setup lang="ts">
/* Of what lasts too long to be held whole a part is chosen. */
import { computed } from 'vue'
import Button from 'primevue/button'
import { lasting } from '../../recording/inHand'
import { longest, partAt, partEvery, type Sound } from '../../recording/sound'

const props = defineProps<{ sound: Sound }>()
const parts = computed(() => {
  const all = props.sound.seconds.value
  const last = partAt(Math.max(0, all - (longest - partEvery)))
  return Array.from({ length: last / partEvery + 1 }, (_, i) => ({
    from: i * partEvery,
    to: Math.min(all, i * partEvery + longest),
  }))
})
</script>

<template>
  <section v-if="sound.long.value || sound.seconds.value > longest" class="parts" aria-label="which part">
    <p v-if="sound.long.value">
      This lasts {{ lasting(sound.seconds.value) }}. At most {{ longest / 60 }} minutes are taken in hand at once:
      which?
    </p>
    <Button
      v-for="p in parts"
      :key="p.from"
      :label="`${lasting(p.from)} to ${lasting(p.to)}`"
      :variant="!sound.long.value && sound.from.value === p.from ? undefined : 'outlined'"
      :aria-pressed="!sound.long.value && sound.from.value === p.from"
      size="small"
      @click="sound.open(p.from)"
    />
  </section>
</template>

<style scoped>
.parts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}

p {
  flex: 1 0 100%;
}
</style>
