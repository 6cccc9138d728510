<script setup lang="ts">
import Dialog from 'primevue/dialog'
import MarkLegend from '../music/MarkLegend.vue'
import { keyHelp } from './keys'

const open = defineModel<boolean>({ required: true })
const arrows: Record<string, string> = {
  left: 'pi-arrow-left',
  right: 'pi-arrow-right',
  up: 'pi-arrow-up',
  down: 'pi-arrow-down',
}
</script>

<template>
  <Dialog v-model:visible="open" modal header="Keys and marks" :style="{ width: 'min(44rem, 94vw)' }" dismissable-mask>
    <section v-for="group in keyHelp" :key="group.place">
      <h2>{{ group.place }}</h2>
      <dl>
        <template v-for="k in group.keys" :key="k.does">
          <dt>
            <kbd v-for="key in k.keys" :key="key">
              <template v-if="arrows[key]"
                ><i class="pi" :class="arrows[key]" aria-hidden="true" /><span class="hidden-text">{{
                  key
                }}</span></template
              ><template v-else>{{ key }}</template>
            </kbd>
          </dt>
          <dd>{{ k.does }}</dd>
        </template>
      </dl>
    </section>
    <h2>Marks</h2>
    <MarkLegend />
    <h2>Cautions</h2>
    <p>
      Wide stretches on low frets strain the hand: warm up, start higher on the neck, keep the wrist easy, stop on pain
      or numbness and see a clinician if it lasts. Take a short break about every 20 to 25 minutes. Loud practice harms
      hearing, from amplifiers and headphones alike: keep the level where talk is possible, and rest the ears. These are
      the usual cautions, not medical advice.
    </p>
    <h2>Licences</h2>
    <p>
      Undaris is free software under the MIT licence, and carries the work of others:
      <a href="/notice.txt" target="_blank" rel="noopener">their names and licences</a>.
    </p>
  </Dialog>
</template>

<style scoped>
h2 {
  font-size: var(--text-l);
  margin: 1rem 0 0.4rem;
}

dl {
  display: grid;
  grid-template-columns: 8.5rem 1fr;
  gap: 0.5rem 1rem;
  margin: 0;
}

dt {
  display: flex;
  gap: 0.3rem;
}

dd {
  margin: 0;
}

kbd {
  font: 600 var(--text-s) var(--font-text);
  border: 1px solid var(--ghost);
  border-bottom-width: 3px;
  border-radius: 6px;
  padding: 0.1rem 0.5rem;
  background: var(--paper);
}
</style>
