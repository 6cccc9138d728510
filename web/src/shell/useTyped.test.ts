import { expect, it } from 'vitest'
import { ref } from 'vue'
import { useTyped } from './useTyped'

it('what is typed stays until it is given, whatever is drawn anew; then the field shows what is', () => {
  const value = ref('96')
  const { shown, type, given } = useTyped(() => value.value)
  expect(shown.value).toBe('96')
  type({ target: { value: '90' } } as unknown as Event)
  value.value = '98'
  expect(shown.value).toBe('90')
  given()
  expect(shown.value).toBe('98')
})
