import fc from 'fast-check'
import { chapSecretTrouble } from '.'

test.each([
  ['eleven-char', 'at least 12'],
  ['seventeen-chars-x', 'at most 16'],
  ['with a space in', 'without spaces'],
  ['umläute-sind-da', 'ASCII'],
  ['aaaaaaaaaaaa', 'repeats'],
])('%s is refused with the rule', (text, why) => expect(chapSecretTrouble(text)).toContain(why))

test('any 12 to 16 varied signs of ASCII are taken, and the trouble never repeats the secret', () => {
  const sign = fc.integer({ min: 0x21, max: 0x7e }).map(code => String.fromCharCode(code))
  const text = fc.array(sign, { minLength: 1, maxLength: 20 }).map(all => all.join(''))
  fc.assert(
    fc.property(text, secret => {
      const trouble = chapSecretTrouble(secret)
      const fits = secret.length >= 12 && secret.length <= 16 && new Set(secret).size >= 5
      expect(trouble === undefined).toBe(fits)
      if (trouble !== undefined && secret.length > 3) expect(trouble).not.toContain(secret)
    }),
  )
})
