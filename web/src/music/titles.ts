/* How what is made is called, until somebody calls it otherwise. */
import { engrave } from './text'

/** A form in a key: "Twelve-bar, quick change in A♭". What is minor by its name is not told so twice. */
export const titled = (form: string, key: string) =>
  `${form} in ${engrave(/minor/.test(form) ? key.replace(/m$/, '') : key)}`
