/* What calls may ask, as the player chose it: each choice is a field of the address. */
import { positionName, readFrets, spanOf } from '../../neck/region'
import { computed, type Ref } from 'vue'
import type { CallWish, Catalogue, ChartMap } from '../../api/client'
import { engrave } from '../../music/text'
import { useDivision } from '../../api/division'
import type { useAddress } from '../../shell/useAddress'

interface Option {
  id: string
  name: string
}
const any = 'any'
/** Round the circle of fourths, from C. */
const keysRound = ['C', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'F#', 'B', 'E', 'A', 'D', 'G']
const roles: Option[] = [
  { id: 'root', name: 'root' },
  { id: 'third', name: 'third' },
  { id: 'fifth', name: 'fifth' },
  { id: 'seventh', name: 'seventh' },
]

const worded = (id: string) => id.replace(/^(\d+)-(\d+)$/, '$1 to $2')

/** The fields, in the order they are shown: how each is called, and what it offers. */
export function useCallWish(
  address: ReturnType<typeof useAddress>,
  id: Ref<number>,
  map: Ref<ChartMap | undefined>,
  catalogue: Ref<Catalogue | undefined>,
  tempo: () => number,
) {
  const field = (name: string, label: string, options: () => Option[]) => {
    const value = address.text(name, any)
    const listed = computed(() => {
      const list = options()
      // What the address asks for is offered, though the place would not.
      return list.some((o) => o.id === value.value) ? list : [...list, { id: value.value, name: worded(value.value) }]
    })
    return {
      name,
      label,
      value,
      options: listed,
      chosen: computed(() => (value.value === any ? undefined : value.value)),
    }
  }
  const anyOf = (name: string, list: Option[] = []) => [{ id: any, name }, ...list]
  const division = useDivision(
    computed(() => map.value?.chart.key),
    computed(() => true),
  )
  const sets = () =>
    (division.data.value?.strings ?? []).filter((s) => s.strings).map((s) => ({ id: s.strings, name: s.name }))
  const usual = (list: Option[] | undefined) => [
    ...(list ?? []).map((o, i) => (i ? o : { ...o, id: any })),
    ...(list?.length ? [{ id: 'all', name: 'all of these' }] : []),
  ]
  const fields = {
    ask: field('ask', 'what', () => anyOf('anything', catalogue.value?.calls)),
    chord: field('chord', 'chord', () =>
      anyOf(
        'every chord',
        [...new Set((map.value?.chords ?? []).map((c) => c.symbol))].map((s) => ({ id: s, name: engrave(s) })),
      ),
    ),
    keys: field('keys', 'keys', () => [
      { id: any, name: "the chart's key" },
      { id: 'all', name: 'all twelve keys' },
      ...keysRound.map((k) => ({ id: k, name: `in ${engrave(k)}` })),
    ]),
    start: field('start', 'from', () =>
      anyOf('any degree', [{ id: 'third,fifth,seventh', name: 'any but the root' }, ...roles]),
    ),
    end: field('end', 'landing on', () => anyOf('any degree', [...roles, { id: 'extension', name: 'a 9, 11 or 13' }])),
    way: field('way', 'direction', () =>
      anyOf('up or down', [
        { id: 'up', name: 'upward' },
        { id: 'down', name: 'downward' },
      ]),
    ),
    order: field('order', 'order', () => usual(catalogue.value?.callOrders)),
    device: field('device', 'led into', () => usual(catalogue.value?.callDevices)),
    pace: field('pace', 'rhythm', () => usual(catalogue.value?.callPaces)),
    step: field('step', 'how much', () =>
      anyOf(
        'as it goes',
        catalogue.value?.callSteps.map((s, i) => ({ id: `${i + 1}`, name: s.name })),
      ),
    ),
    strings: field('strings', 'strings', () => anyOf('all strings', sets())),
    frets: field('frets', 'frets', () =>
      anyOf(
        'all positions',
        (map.value?.positions ?? []).map((p) => ({ id: spanOf(p), name: positionName(p) })),
      ),
    ),
  }
  /** What a plan has come in turn, until something else is chosen. */
  const planned = address.text('mixed', '')
  const mixed = computed(() =>
    Object.values(fields).some((f) => f !== fields.step && f.chosen.value) ? '' : planned.value,
  )
  const all = (chosen: string | undefined, list: Option[] | undefined) =>
    chosen === 'all' ? list?.map((o) => o.id) : chosen?.split(',')
  const wish = computed<CallWish>(() => {
    const f = fields
    if (mixed.value) return { chart: id.value, mixed: mixed.value }
    const strings = f.strings.chosen.value
    const frets = f.frets.chosen.value
    return {
      chart: id.value,
      kinds: f.ask.chosen.value ? [f.ask.chosen.value as 'tones'] : undefined,
      chords: f.chord.chosen.value ? [f.chord.chosen.value] : undefined,
      keys: f.keys.chosen.value,
      starts: f.start.chosen.value?.split(',') as CallWish['starts'],
      ends: f.end.chosen.value?.split(',') as CallWish['ends'],
      only: f.way.chosen.value as CallWish['only'],
      orders: all(f.order.chosen.value, catalogue.value?.callOrders),
      devices: all(f.device.chosen.value, catalogue.value?.callDevices),
      paces: all(f.pace.chosen.value, catalogue.value?.callPaces),
      tempo: f.pace.chosen.value ? tempo() : undefined,
      strings: strings ? [strings] : undefined,
      windows: frets && readFrets(frets) ? [readFrets(frets)!] : undefined,
    }
  })
  const narrowed = computed(() =>
    mixed.value
      ? [`${mixed.value.split('~').length} things in turn, as planned`]
      : Object.values(fields)
          .filter((f) => f.chosen.value)
          .map((f) => f.options.value.find((o) => o.id === f.value.value)?.name ?? f.value.value),
  )
  return {
    fields: Object.values(fields),
    wish,
    step: fields.step.chosen,
    /** what is chosen, in words */
    narrowed,
    clear: () => void address.write(Object.fromEntries([...Object.keys(fields), 'mixed'].map((n) => [n, undefined]))),
  }
}
