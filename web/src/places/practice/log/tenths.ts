/* How well something goes, of ten, and how it is drawn: from the red of what is weak to the ink of what is strong. */
export const tenths = (success: number) => Math.round(10 * success)

export const ink = (strength: number) =>
  `color-mix(in oklab, var(--ink) ${Math.round(100 * Math.max(0, Math.min(1, (strength - 0.35) / 0.5)))}%, var(--third))`

/** Words for a screen reader and a title. */
export const told = (what: string, c: { trials: number; right: number; last: string }) =>
  c.trials
    ? `${what}: ${c.right} of ${c.trials} right at once, last on ${new Date(c.last).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}`
    : `${what}: never asked for`
