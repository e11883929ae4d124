import access from '@/../vectors/access.json'
import clusters from '@/../vectors/cluster-durability.json'
import durability from '@/../vectors/durability.json'
import evacuation from '@/../vectors/evacuation.json'
import forecast from '@/../vectors/forecast.json'
import domains from '@/../vectors/layout-domains.json'
import raid from '@/../vectors/layout-raid.json'
import missRatio from '@/../vectors/missratio.json'
import queueing from '@/../vectors/queueing.json'
import retention from '@/../vectors/retention.json'
import schedule from '@/../vectors/schedule.json'
import snapshots from '@/../vectors/snapshots.json'
import syncLatency from '@/../vectors/sync-latency.json'
import scoring from '@/../vectors/transfer-scoring.json'
import { answerCase, firstDifference, UnknownSubject } from '.'

for (const file of [
  access,
  raid,
  domains,
  durability,
  clusters,
  scoring,
  evacuation,
  schedule,
  retention,
  snapshots,
  forecast,
  queueing,
  syncLatency,
  missRatio,
]) {
  describe(file.subject, () => {
    const cases: readonly {
      readonly name: string
      readonly input: unknown
      readonly expected: unknown
      readonly tolerance?: number
    }[] = file.cases
    test.each(cases)('$name', ({ input, expected, tolerance }) =>
      expect(firstDifference(answerCase(file.subject, input), expected, tolerance ?? file.tolerance)).toBeUndefined(),
    )
  })
}

test('an unknown subject is refused', () => expect(() => answerCase('weather', {})).toThrow(UnknownSubject))

test('a difference is named by its place', () => {
  expect(firstDifference({ a: [1, 2.5] }, { a: [1, 2.6] }, 1e-3)).toBe('a[1]: expected 2.6, got 2.5')
  expect(firstDifference({ a: [1, 2.6001] }, { a: [1, 2.6] }, 1e-3)).toBeUndefined()
  expect(firstDifference({ a: '7' }, { a: 7 }, 1)).toBe('a: expected 7, got "7"')
  expect(firstDifference({}, { a: null }, 0)).toBe('a: expected null, got undefined')
})
