/* Made from the core by `make types`. */
/** ticks to the quarter */
export const quarter = 960
/** beats a minute */
export const minTempo = 30
/** beats a minute */
export const maxTempo = 300
/** percent of a beat */
export const minSwing = 50
/** percent of a beat */
export const maxSwing = 75
/** of a neck */
export const minFrets = 12
/** of a neck */
export const maxFrets = 27
