/** What marks on a neck can bear. */
export const plainLabels = ['degree', 'note', 'finger', 'fret'] as const
