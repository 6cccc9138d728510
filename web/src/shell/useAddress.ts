/* The address bar as one view of what is shown: its fields are read, and written in place, so that a page can be marked,
   sent on and come back to. A field at its usual value is not in it. */
import { computed } from 'vue'
import { useRoute, useRouter, type LocationQueryRaw } from 'vue-router'
import { going } from './going'

/* What the address will be while a change of it is on its way: what is written meanwhile goes on from there, so that no
   change is lost by the next. */
let ahead: LocationQueryRaw | undefined

export function useAddress() {
  const route = useRoute()
  const router = useRouter()
  const read = (name: string) => (typeof route.query[name] === 'string' ? (route.query[name] as string) : '')
  /** step: it is gone back from by Back, as from another place */
  const write = (fields: Record<string, string | undefined>, step = false) => {
    if (going.elsewhere) return
    const now = ahead ?? router.currentRoute.value.query
    if (!Object.entries(fields).some(([name, v]) => now[name] !== (v || undefined))) return
    const query = { ...now, ...Object.fromEntries(Object.entries(fields).map(([n, v]) => [n, v || undefined])) }
    ahead = query
    return (step ? router.push({ query }) : router.replace({ query })).finally(
      () => ahead === query && (ahead = undefined),
    )
  }
  return {
    /** the number of what is shown, from the path */
    id: computed(() => Number(route.params.id) || 0),
    read,
    write,
    text: (name: string, usual = '') =>
      computed({ get: () => read(name) || usual, set: (v) => void write({ [name]: v === usual ? undefined : v }) }),
    yes: (name: string) =>
      computed({ get: () => read(name) === 'yes', set: (v) => void write({ [name]: v ? 'yes' : undefined }) }),
    /** one of a few; the first is usual */
    oneOf: <T extends string>(name: string, options: readonly T[], step = false) =>
      computed<T>({
        get: () => options.find((o) => o === read(name)) ?? options[0]!,
        set: (v) => void write({ [name]: v === options[0] ? undefined : v }, step),
      }),
  }
}
