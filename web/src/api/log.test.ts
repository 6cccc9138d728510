import { expect, it } from 'vitest'
import { asHere } from './log'

it('a time is told as it is here, in every zone and on both sides of its summer', () => {
  const zone = process.env.TZ
  for (const tz of [
    'UTC',
    'America/New_York',
    'Asia/Kolkata',
    'Pacific/Auckland',
    'America/St_Johns',
    'Pacific/Pago_Pago',
  ]) {
    process.env.TZ = tz
    for (const day of ['2026-01-15', '2026-07-15', '2026-03-29', '2026-10-25'])
      for (let hour = 0; hour < 24; hour++) {
        const at = new Date(`${day}T${`${hour}`.padStart(2, '0')}:30:00.250Z`)
        const told = asHere(at)
        expect(new Date(told).getTime(), `${tz}: ${told}`).toBe(at.getTime())
        expect(told).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}[+-]\d\d:\d\d$/)
        expect(Number(told.slice(8, 10))).toBe(at.getDate())
      }
  }
  process.env.TZ = zone
})
