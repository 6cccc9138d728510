/** What lines and licks leave as. */
export const leavings = [
  { label: 'MusicXML, for notation programs', kind: 'musicxml' },
  { label: 'MusicXML, compressed (.mxl)', kind: 'mxl' },
  { label: 'MIDI, with the band: the notes, not their places', kind: 'midi' },
  { label: 'Tablature as text', kind: 'tab' },
]

/** The files of a line, of its plain level where that is in view. */
export const lineFiles = (id: number, plain = false) =>
  leavings.map(({ label, kind }) => {
    const query = new URLSearchParams({
      ...(kind === 'midi' && { choruses: '1', ending: 'own' }),
      ...(plain && { plain: 'true' }),
    })
    return { label, url: `/api/lines/${id}/files/${kind}${query.size ? `?${query}` : ''}` }
  })
