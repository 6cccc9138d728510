/* A line as it is edited. A command applies at once to what is in the page; the core is asked afterwards, and its answer
   becomes what the commands given since are applied to again. So an answer adds what it knows and never replaces a newer
   edit, however late it comes. */
import { computed, ref, shallowRef } from 'vue'
import { passing, type LineBody, type LineNote, type Study, type Written } from '../api/client'
import { lineOf, notesOf } from './study'
import { apply, type Change, type Step } from './steps'
import { useHistory } from './useHistory'

/** Something done to a line. It may be applied anew to what the core has answered meanwhile, so it names notes by id. */
export interface Command {
  name: string
  apply: (line: LineBody) => LineBody
  /** quick ones of the same name are one step back */
  typed?: boolean
  /** what it was, to be taken back */
  step?: Step
}

/** What is asked of the core after each command. */
export type Ask = (line: LineBody) => Promise<Study>

const patience = 1000

export function useDocument(ask: Ask, events: { changed?: () => void; settled?: () => void } = {}) {
  /** The line with everything that was done to it. */
  const line = shallowRef<LineBody>()
  /** The last answer of the core; it may be some commands behind. */
  const study = shallowRef<Study>()
  const trouble = ref('')
  /** The core does not answer: what is done is kept here until it does. */
  const cut = ref(false)
  let accepted: LineBody | undefined
  const pending = shallowRef<Command[]>([])
  let revision = 0
  let epoch = 0
  let takes = 0
  let asking = false
  let narrow = false // one command after the other, to find the one that is refused
  let last = 0

  const newId = () => ++last
  /** Every note with a number of its own. */
  function numbered(of: LineBody): LineBody {
    const seen = new Set<number>()
    for (const n of of.notes) last = Math.max(last, n.id ?? 0)
    const notes = of.notes.map((n) => {
      const id = n.id && !seen.has(n.id) ? n.id : newId()
      seen.add(id)
      return n.id === id ? n : { ...n, id }
    })
    return { ...of, notes }
  }

  const history = useHistory(line)
  const show = () => (line.value = pending.value.reduce((l, c) => c.apply(l), accepted!))

  function accept(s: Study) {
    accepted = lineOf(s)
    for (const n of accepted.notes) last = Math.max(last, n.id!)
    study.value = s
    cut.value = false
  }

  /** Shows a line that has just been read, with nothing to take back. */
  async function open(body: LineBody) {
    const mine = ++epoch
    takes++
    pending.value = []
    narrow = false
    const s = await ask(numbered(body))
    if (mine !== epoch) return
    accept(s)
    show()
    history.begin()
  }

  /** Does something to the line. */
  function run(command: Command) {
    if (!accepted) return
    const before = line.value!
    const after = command.apply(before)
    goOn(after, { ...command, step: history.record(command.name, before, after, command.typed) })
  }
  function goOn(to: LineBody, command: Command) {
    revision++
    pending.value = [...pending.value, command]
    line.value = to
    trouble.value = ''
    events.changed?.()
    void next()
  }
  /** Changes that are no step of the player's own: of an earlier visit, of another tab, or back and forth. */
  function bring(name: string, changes: Change[]) {
    if (!accepted || !changes.length) return
    goOn(apply(changes, line.value!), { name, apply: (l) => apply(changes, l) })
  }
  /** What was changed elsewhere is there too from now on; to go back takes back mine and leaves theirs. */
  function join(theirs: Change[]) {
    if (!theirs.length) return
    history.joined(theirs)
    bring('what was changed elsewhere', theirs)
  }

  async function next() {
    if (asking || !accepted || !pending.value.length) return
    asking = true
    const mine = epoch
    const sent = narrow ? pending.value.slice(0, 1) : pending.value
    try {
      const s = await ask(sent.reduce((l, c) => c.apply(l), accepted))
      if (mine === epoch) {
        accept(s)
        pending.value = pending.value.slice(sent.length)
        narrow = false
        show()
      }
    } catch (e) {
      if (mine === epoch) await refused(e, sent)
    }
    asking = false
    if (pending.value.length) void next()
    else events.settled?.()
  }

  async function refused(e: unknown, sent: Command[]) {
    const says = e instanceof Error ? e.message : String(e)
    if (passing(e)) {
      cut.value = true
      trouble.value = says
      await new Promise((again) => setTimeout(again, patience))
      return
    }
    if (sent.length > 1) {
      narrow = true
      return
    }
    // This one cannot be done; what was done after it stands.
    pending.value = pending.value.slice(1)
    trouble.value = `${sent[0]!.name[0]!.toUpperCase()}${sent[0]!.name.slice(1)}: ${says}`
    if (sent[0]!.step) history.forget(sent[0]!.step)
    show()
  }

  /** Takes what the core made of the line, unless the player went on meanwhile. */
  async function take(answer: Promise<Study>, name = 'what the core did') {
    const at = revision
    const mine = ++takes // a later question takes the place of an earlier one
    events.changed?.()
    try {
      const s = await answer
      if (mine !== takes) return
      if (at !== revision) {
        trouble.value = 'You went on writing while this was worked out, so its answer was left out. Ask again.'
        events.settled?.()
        return
      }
      epoch++
      const before = line.value!
      accept(s)
      pending.value = []
      show()
      history.record(name, before, line.value!)
      trouble.value = ''
      events.changed?.() // what stood here when it was asked may have been saved since
    } catch (e) {
      trouble.value = e instanceof Error ? e.message : String(e)
    }
    events.settled?.()
  }

  const undo = () => bring('undo', history.takenBack() ?? [])
  const redo = () => bring('redo', history.doneAgain() ?? [])

  const notes = computed<LineNote[]>(() => line.value?.notes ?? [])
  /** What the core knows of each note, by its number. */
  const known = computed(() => (study.value ? notesOf(study.value.score) : new Map<number, Written>()))
  const same = (a: LineNote, b: LineNote) =>
    a === b ||
    (a.start === b.start && a.length === b.length && a.string === b.string && a.fret === b.fret && a.dead === b.dead)
  /** What the engraving does not show yet, and what it shows that is there no more. */
  const ahead = computed(() => {
    const fresh: LineNote[] = []
    const gone = new Set<number>()
    if (!pending.value.length || !study.value) return { fresh, gone }
    const shown = new Set<number>()
    for (const n of notes.value) {
      const drawn = known.value.get(n.id!)
      if (drawn && same(drawn, n)) shown.add(n.id!)
      else fresh.push(n)
    }
    for (const id of known.value.keys()) if (!shown.has(id)) gone.add(id)
    return { fresh, gone }
  })

  return {
    line,
    study,
    notes,
    known,
    ahead,
    trouble,
    cut,
    pending: computed(() => pending.value.length),
    newId,
    open,
    run,
    bring,
    join,
    take,
    undo,
    redo,
    undoName: history.undoName,
    redoName: history.redoName,
    canUndo: history.canUndo,
    canRedo: history.canRedo,
  }
}
