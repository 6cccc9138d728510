/* A document for tests, with Node's own way to ask for things: what the program answers is not kept or read twice. */
import { builtinEnvironments, type Environment } from 'vitest/runtime'

const own = ['fetch', 'Request', 'Response', 'Headers', 'AbortController', 'AbortSignal', 'FormData', 'Blob', 'File', 'ReadableStream'] as const // prettier-ignore

export default {
  ...builtinEnvironments['happy-dom'],
  name: 'page',
  async setup(global, options) {
    const kept = own.map((name) => [name, global[name]] as const)
    const told = await builtinEnvironments['happy-dom'].setup(global, options)
    for (const [name, value] of kept) Object.defineProperty(global, name, { value, writable: true, configurable: true })
    return told
  },
} satisfies Environment
