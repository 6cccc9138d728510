/* What a line leaves as. */
const kinds = [
  { label: 'MusicXML, for notation programs', kind: 'musicxml' },
  { label: 'MIDI, with the band', kind: 'midi?choruses=1&ending=true' },
  { label: 'Tablature as text', kind: 'tab' },
]

/** The files of a line, of its plain level where that is in view. */
export const lineFiles = (id: number, plain = false) =>
  kinds.map(({ label, kind }) => ({
    label,
    url: `/api/lines/${id}/${kind}${plain ? `${kind.includes('?') ? '&' : '?'}plain=true` : ''}`,
  }))
