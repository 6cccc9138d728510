<script setup lang="ts">
/* Single letters: on or off, and other ones for those that are in the way. */
import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'
import Button from 'primevue/button'
import { commands, face, pressed, rooms, type CommandId } from './commands'
import { isLetter, keysOf, useKeys } from './keys'
import { changeable, takenBy } from './otherKeys'
import TickBox from './TickBox.vue'

const kept = useKeys()
const learning = ref<CommandId>()
const trouble = ref('')
const letters = computed({ get: () => kept.value.letters, set: (on) => (kept.value.letters = on) })
const rows = computed(() =>
  changeable.map((id) => ({
    id,
    key: keysOf(id, { ...kept.value, letters: true })[0]!,
    own: !!kept.value.own[id],
    name: commands[id].name,
    room: rooms[commands[id].room],
  })),
)
function learn(id: CommandId | undefined) {
  learning.value = id
  trouble.value = ''
}
useEventListener(
  window,
  'keydown',
  (e) => {
    const id = learning.value
    if (!id || ['Tab', 'Shift'].includes(e.key)) return
    e.preventDefault()
    e.stopImmediatePropagation()
    if (e.key === 'Escape') return learn(undefined)
    const key = pressed(e)
    const other = takenBy(id, key, kept.value)
    if (!isLetter(key)) trouble.value = 'Press a letter, a figure or a sign alone; Escape leaves it as it is.'
    else if (other) trouble.value = `${face(key)} is taken: ${commands[other].name}.`
    else {
      kept.value.own = { ...kept.value.own, [id]: key }
      learn(undefined)
    }
  },
  { capture: true },
)
function usual(id: CommandId) {
  kept.value.own = Object.fromEntries(Object.entries(kept.value.own).filter(([other]) => other !== id))
}
</script>

<template>
  <div class="keys">
    <TickBox v-model="letters">single letters do something by themselves</TickBox>
    <p v-if="!letters">They are off, but on the tablature; arrows, space and all buttons do what they did.</p>
    <details v-else>
      <summary>Other letters</summary>
      <p v-if="trouble" role="alert" class="trouble">{{ trouble }}</p>
      <ul>
        <li v-for="r in rows" :key="r.id">
          <span
            >{{ r.name }} <small>{{ r.room }}</small></span
          >
          <span class="set">
            <Button
              v-if="r.own"
              size="small"
              variant="text"
              label="as usual"
              :aria-label="`as usual: ${r.name}`"
              @click="usual(r.id)"
            />
            <Button
              size="small"
              :variant="learning === r.id ? undefined : 'outlined'"
              :label="learning === r.id ? 'Press a key …' : face(r.key)"
              :aria-label="
                learning === r.id ? `press a key for: ${r.name}` : `${face(r.key)}: another key for ${r.name}`
              "
              @click="learn(learning === r.id ? undefined : r.id)"
            />
          </span>
        </li>
      </ul>
    </details>
  </div>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}

li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 0.2rem 1rem;
}

.set {
  display: inline-flex;
  gap: 0.3rem;
  flex: none;
}

small {
  color: var(--soft);
}

.trouble {
  color: var(--danger);
}
</style>
