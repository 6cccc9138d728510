/** Hands something that was made here to the player as a file, named after its title. */
export function save(blob: Blob, title: string, ending: string) {
  const url = URL.createObjectURL(blob)
  const plain = title
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '')
  Object.assign(document.createElement('a'), { href: url, download: `${plain || 'undaris'}.${ending}` }).click()
  setTimeout(() => URL.revokeObjectURL(url), 60_000)
}
