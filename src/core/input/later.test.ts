import { later } from '.'

/** A check that is made once and refuses whatever is not its own number. */
function counted(own: number) {
  let made = 0
  const make = () => {
    made += 1
    const check: { (value: unknown): boolean; errors?: readonly string[] | null } = value => {
      check.errors = value === own ? null : [`is not ${own}`]
      return value === own
    }
    return check
  }
  return { check: later(make), made: () => made }
}

test('a check is made when it is first used, once, and tells what is wrong as what it stands for does', () => {
  const { check, made } = counted(3)
  expect(made()).toBe(0)
  expect([check(4), check.errors]).toEqual([false, ['is not 3']])
  expect([check(3), check.errors]).toEqual([true, null])
  expect(made()).toBe(1)
})

test('two checks keep what is wrong apart', () => {
  const [one, two] = [counted(1), counted(2)]
  one.check(9)
  two.check(2)
  expect([one.check.errors, two.check.errors]).toEqual([['is not 1'], null])
})
