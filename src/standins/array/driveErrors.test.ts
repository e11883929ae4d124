import fc from 'fast-check'
import { correctedBy, shownErrors, type DriveEntity } from '.'

const day = 86_400_000
const course = { since: 100 * day, perDay: 2, doublingDays: 6 }

test('none before it begins to err, then ever more of them, and no leap where it stops to double', () => {
  expect(correctedBy(course, 99 * day)).toBe(0)
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 400, noNaN: true }),
      fc.double({ min: 0, max: 5, noNaN: true }),
      (at, more) => {
        const [before, after] = [correctedBy(course, at * day), correctedBy(course, (at + more) * day)]
        expect(after).toBeGreaterThanOrEqual(before)
        // Never more than its fastest rate allows.
        expect(after - before).toBeLessThanOrEqual(2 * 2 ** (45 / 6) * more + 1)
      },
    ),
  )
  const week = (from: number) => correctedBy(course, (from + 6) * day) - correctedBy(course, from * day)
  expect(week(130) / week(124)).toBeCloseTo(2, 1)
})

test('a drive that does not err shows counters that stand at nothing', () =>
  expect(Object.values(shownErrors({} as DriveEntity, 500 * day))).toEqual([0, 0, 0, 0]))
