/* The Bench in sentences, as one musician tells another: where we are, what the chord has here, and what moves at the change. */
import { spoken } from '../../music/text'
import { told } from '../../neck/region'
import type { Bench } from './useBench'
import { away } from './words'

const size = ['stays', 'a half step', 'a whole step']
const moved = (n: number) =>
  n === 0 ? 'stays' : `${size[Math.abs(n)] ?? `${Math.abs(n)} half steps`} ${n > 0 ? 'up' : 'down'}`

export function summaryOf(bench: Bench): string {
  const { data, step, chord, coming, window, run, moves, targets, at, nextTarget, choruses, chorus } = bench
  const [d, s, c] = [data.value, step.value, chord.value]
  if (!d || !s || !c) return ''
  const says = [`${d.chart.title}, bar ${s.bar + 1} of ${d.bars.length}: ${spoken(c.symbol)}`]
  if (choruses.value > 1) says[0] += `, chorus ${chorus.value + 1} of ${choruses.value}`
  if (window.value) {
    const tones = run.value?.notes.map(
      (n) => `${spoken(n.degree)} at string ${n.string} ${n.fret ? `fret ${n.fret}` : 'open'}`,
    )
    says.push(`Frets ${told(window.value)}: ${tones?.join(', ') || 'no tone of it'}`)
  }
  const target = targets.value[at.value]
  if (target) says.push(`The thread is on ${spoken(target.degree)}, ${spoken(target.note)}`)
  const next = coming.value[0]
  if (next) {
    const symbol = spoken(d.chords[next.chord]?.symbol ?? '')
    const aim = nextTarget.value
    const move = moves.value.find((m) => m.to.degree === aim?.degree && m.from.degree === target?.degree)
    says.push(
      `${symbol} comes ${away(next.beats, d.chart)}` +
        (aim
          ? `: land on ${spoken(aim.degree)}, ${spoken(aim.note)}, string ${aim.string} ${aim.fret ? `fret ${aim.fret}` : 'open'}`
          : '') +
        (move ? `, ${moved(move.halfSteps)}` : ''),
    )
  } else says.push('One chord all the way')
  return `${says.join('. ')}.`
}
