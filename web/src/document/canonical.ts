/** Two things that say the same are written alike: in any order, and without what is not said. */
export const canonical = (b: unknown) =>
  JSON.stringify(b, (_, v: unknown) => {
    if (v === false || v === 0 || v === '') return undefined
    if (v === null || typeof v !== 'object' || Array.isArray(v)) return v
    return Object.fromEntries(Object.entries(v).sort(([a], [c]) => (a < c ? -1 : 1)))
  })
