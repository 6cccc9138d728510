/** Samples a second that the model hears. */
export const modelRate = 22050
