/* What a first evening may be over: a form, in a key whose first third lies well under a hand. */
export const blues = [
  { form: 'slow-change', key: 'A', feel: 'shuffle', tempo: 84 },
  { form: 'quick-change', key: 'G', feel: 'shuffle', tempo: 80 },
  { form: 'minor-blues', key: 'Am', feel: 'slow-12-8', tempo: 60 },
  { form: 'eight-bar', key: 'E', feel: 'slow-12-8', tempo: 66 },
] as const
