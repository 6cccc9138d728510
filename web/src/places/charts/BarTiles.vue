<script setup lang="ts">
/* The written bars of a chart, to be chosen, typed over, dragged, copied and pasted. */
import { nextTick, ref } from 'vue'
import Button from 'primevue/button'
import type { Reading } from '../../api/client'
import MusicText from '../../music/MusicText.vue'
import PressButton from '../../shell/PressButton.vue'
import { metreOf, numberOf, put, retype, typed, type Tile } from './tiles'
import { useTiles } from './useTiles'

const props = defineProps<{
  bars: Reading['written']
  /** Reads a text as bars; nothing where it cannot be read. */
  read: (text: string) => Promise<Tile[] | undefined>
  /** Puts other bars in place of these; false where they cannot be read. */
  change: (name: string, bars: Tile[]) => Promise<boolean>
}>()

const list = ref<HTMLElement>()
const tiles = useTiles(props)
const { here, chosen, isChosen, choose, done, drop, shift, moveTo, taken, double, add, lead, several } = tiles
async function step(i: number, wider: boolean) {
  choose(i, wider)
  await nextTick()
  list.value?.querySelector<HTMLElement>(`[data-tile='${here.value + 1}']`)?.focus()
}
const press = (i: number, e: MouseEvent) => choose(i, e.shiftKey)

function copy(e: ClipboardEvent) {
  if (!chosen.value || editing.value >= 0) return
  e.clipboardData?.setData('text/plain', taken())
  e.preventDefault()
  if (e.type === 'cut') drop()
}
async function paste(e: ClipboardEvent) {
  const text = e.clipboardData?.getData('text/plain').trim()
  if (!text || editing.value >= 0) return
  e.preventDefault()
  const at = chosen.value ? chosen.value.to + 1 : props.bars.length
  const bars = await props.read(text)
  if (bars?.length) await done('bars pasted', put(props.bars, at, bars), { from: at, to: at + bars.length - 1 })
}

/* A bar is typed over in its place. */
const editing = ref(-1)
const text = ref('')
const field = ref<HTMLInputElement[]>()
async function edit(i: number) {
  choose(i)
  text.value = typed(props.bars, i)
  editing.value = i
  await nextTick()
  field.value?.[0]?.select()
}
async function leave(keep: boolean, next = false) {
  const i = editing.value
  if (i < 0) return
  const now = text.value.trim()
  editing.value = -1
  const ok = !keep || !now || now === typed(props.bars, i) || (await props.change('a bar', retype(props.bars, i, now)))
  if (!ok) {
    editing.value = i // what was typed stays, to be mended
    text.value = now
    await nextTick()
    return field.value?.[0]?.focus()
  }
  if (next && i + 1 < props.bars.length) await edit(i + 1)
  else await step(i, false)
}

function key(e: KeyboardEvent) {
  if (editing.value >= 0 || e.target instanceof HTMLInputElement) return
  const i = here.value
  const deeds: Record<string, () => void> = {
    ArrowLeft: () => (e.altKey ? shift(-1) : void step(i - 1, e.shiftKey)),
    ArrowRight: () => (e.altKey ? shift(1) : void step(i + 1, e.shiftKey)),
    ArrowUp: () => void step(i - 4, e.shiftKey),
    ArrowDown: () => void step(i + 4, e.shiftKey),
    Home: () => void step(0, e.shiftKey),
    End: () => void step(props.bars.length - 1, e.shiftKey),
    F2: () => void edit(i),
    Enter: () => void edit(i),
    Delete: drop,
    Backspace: drop,
  }
  const deed = i >= 0 && !e.ctrlKey && !e.metaKey ? deeds[e.key] : undefined
  if (!deed) return
  e.preventDefault()
  e.stopPropagation()
  deed()
}

/* Dragged bars stand before the one they are let go over, or behind it in its right half. */
const over = ref(-1)
function drag(i: number, e: DragEvent) {
  if (!isChosen(i)) choose(i)
  e.dataTransfer?.setData('text/plain', taken())
  if (e.dataTransfer) e.dataTransfer.effectAllowed = 'copyMove'
}
function hover(i: number, e: DragEvent) {
  const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
  over.value = i + (e.clientX > box.left + box.width / 2 ? 1 : 0)
}
function letGo(e: DragEvent) {
  const at = over.value
  over.value = -1
  const c = chosen.value
  if (at < 0 || !c) return
  if (e.ctrlKey || e.altKey) {
    const more = props.bars.slice(c.from, c.to + 1)
    void done(`${several.value} copied`, put(props.bars, at, more), { from: at, to: at + more.length - 1 })
  } else moveTo(at)
}
const metre = (i: number) => metreOf(props.bars, i)
</script>

<template>
  <section class="tiles" aria-label="the bars" @copy="copy" @cut="copy" @paste="paste">
    <ol ref="list" @keydown="key" @dragleave.self="over = -1">
      <li
        v-for="(b, i) in bars"
        :key="i"
        :class="{
          row: (b.row && i) || bars[i - 1]?.pickup,
          over: over === i,
          after: over === bars.length && i === bars.length - 1,
        }"
        @dragover.prevent="hover(i, $event)"
        @drop.prevent="letGo"
      >
        <input
          v-if="editing === i"
          ref="field"
          v-model="text"
          :aria-label="b.pickup ? 'pickup' : `bar ${numberOf(bars, i)}`"
          spellcheck="false"
          autocomplete="off"
          @keydown.enter.prevent="leave(true)"
          @keydown.tab.exact.prevent="leave(true, true)"
          @keydown.escape.stop="leave(false)"
          @blur="leave(true)"
        />
        <PressButton
          v-else
          class="tile"
          draggable="true"
          :data-tile="i + 1"
          :aria-pressed="isChosen(i)"
          :tabindex="i === Math.max(0, here) ? 0 : -1"
          @click="press(i, $event)"
          @dblclick="edit(i)"
          @dragstart="drag(i, $event)"
          @dragend="over = -1"
        >
          <span class="head"
            ><b v-if="b.section">{{ b.section }}</b
            ><span>{{ b.before }}</span
            ><small
              ><b v-if="metre(i)">{{ metre(i) }}</b> <span v-if="!b.pickup" class="hidden-text">bar </span
              >{{ b.pickup ? 'pickup' : numberOf(bars, i)
              }}<span v-if="b.pickup" class="hidden-text">
                of {{ b.beats }} beat{{ b.beats === 1 ? '' : 's' }}</span
              ></small
            ></span
          >
          <span class="chords"
            ><MusicText v-for="(c, k) in b.chords.split(' ')" :key="k" :symbol="c === '.' ? '·' : c"
          /></span>
          <span class="foot"
            ><MusicText :symbol="b.numerals.replaceAll('.', '·')" /><b v-if="b.after">{{ b.after }}</b></span
          >
        </PressButton>
      </li>
    </ol>
    <div class="deeds" role="group" aria-label="what is done to the bars">
      <Button
        label="Type over"
        icon="pi pi-pencil"
        size="small"
        variant="outlined"
        title="Enter, or press it twice"
        :disabled="!chosen"
        @click="edit(here)"
      />
      <Button
        label="Earlier"
        icon="pi pi-arrow-left"
        size="small"
        variant="outlined"
        title="Alt and left"
        :disabled="!chosen || chosen.from === 0"
        @click="shift(-1)"
      />
      <Button
        label="Later"
        icon="pi pi-arrow-right"
        size="small"
        variant="outlined"
        title="Alt and right"
        :disabled="!chosen || chosen.to === bars.length - 1"
        @click="shift(1)"
      />
      <Button
        label="Double"
        icon="pi pi-clone"
        size="small"
        variant="outlined"
        title="once more behind"
        :disabled="!chosen"
        @click="double"
      />
      <Button label="Bar" icon="pi pi-plus" size="small" variant="outlined" title="a bar more behind" @click="add" />
      <Button
        v-if="!bars[0]?.pickup"
        label="Pickup"
        icon="pi pi-step-forward"
        size="small"
        variant="outlined"
        title="a beat before the first bar, played once"
        @click="lead"
      />
      <Button
        label="Take out"
        icon="pi pi-trash"
        size="small"
        variant="outlined"
        title="Delete"
        :disabled="!chosen || bars.length === chosen.to - chosen.from + 1"
        @click="drop"
      />
    </div>
    <p class="hint">
      Press a bar, with Shift as far as another; drag it, copy it and paste it, also from another chart.
    </p>
  </section>
</template>

<style scoped>
.tiles {
  display: grid;
  gap: 0.6rem;
}

ol {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  margin: 0;
  padding: 0;
  list-style: none;
  border: solid var(--ink);
  border-width: 2px 0 2px 2px;
  max-height: 26rem;
  overflow-y: auto;
  scrollbar-width: thin;
}

li {
  position: relative;
  display: grid;
  min-height: 4.6rem;
  border-right: 2px solid var(--ink);
  border-bottom: 1px solid var(--rule);
}

.row {
  grid-column-start: 1;
}

.over::before,
.after::after {
  content: '';
  position: absolute;
  z-index: 1;
  inset: 0 auto 0 -4px;
  width: 6px;
  background: var(--lit-rule);
}

.after::after {
  inset: 0 -2px 0 auto;
}

.tile {
  display: grid;
  grid-template-rows: auto 1fr auto;
  gap: 0.1rem;
  padding: 0.2rem 0.5rem 0.3rem;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: grab;
  min-width: 0;
}

.tile:hover {
  background: var(--raised);
}

.tile[aria-pressed='true'] {
  background: var(--lit);
}

.head,
.foot {
  display: flex;
  gap: 0.5rem;
  align-items: baseline;
  font-size: var(--text-s);
  color: var(--soft);
  min-width: 0;
  white-space: nowrap;
}

.head > b {
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--third);
}

.head small,
.foot b {
  margin-left: auto;
}

.head small b,
.foot b {
  color: var(--ink);
}

.chords {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.6rem;
  font: 700 1.3rem/1.1 var(--font-display);
}

input {
  min-width: 0;
  border: 2px solid var(--lit-rule);
  background: var(--raised);
  color: var(--ink);
  font: 600 1.1rem var(--font-display);
  padding: 0 0.5rem;
}

.deeds {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}

.hint {
  color: var(--soft);
  font-size: var(--text-s);
}

@media (max-width: 35em) {
  ol {
    grid-template-columns: repeat(2, minmax(0, 1fr));
  }

  .row {
    grid-column-start: auto;
  }
}
</style>
