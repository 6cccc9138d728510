/** The address that Undaris had before another program took it: a start says so once, behind the address (cmd/undaris/start.go). */
export const wasAt = (hash: string) => /^#was=((?:127\.0\.0\.1|\[::1\]|localhost):\d{1,5})$/.exec(hash)?.[1]

export const was = wasAt(globalThis.location?.hash ?? '')
