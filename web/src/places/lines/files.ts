/* What a line leaves as. */
const kinds = [
  { label: 'MusicXML, for notation programs', kind: 'musicxml' },
  { label: 'MIDI, with the band', kind: 'midi?choruses=1&ending=true' },
  { label: 'Tablature as text', kind: 'tab' },
]

export const lineFiles = (id: number) => kinds.map(({ label, kind }) => ({ label, url: `/api/lines/${id}/${kind}` }))
