import { sampleId } from '../estate/testing/samples'
import { driveFindings, type CountedDrive } from '.'

const day = 86_400_000
const now = 400 * day
const daily = (of: (daysAgo: number) => number) =>
  Array.from({ length: 30 }, (_, index) => ({ at: now - (29 - index) * day, value: of(29 - index) }))
const drive = (more: Partial<CountedDrive> = {}): CountedDrive => ({
  ...{ id: sampleId(1), name: 'shelf 3, bay 7', serial: 'ABC123', systemName: 'bittern' },
  ...{ poolId: sampleId(9), poolName: 'bulk', corrected: daily(() => 12), lost: daily(() => 0), ...more },
})

test('a drive that errs as it always has is not told of', () => expect(driveFindings([drive()], now)).toEqual([]))

test('one that errs more from week to week is, before it fails, with what its pool has to do with it', () => {
  const rising = daily(daysAgo => Math.round(1000 * 2 ** (-daysAgo / 6)))
  const [told] = driveFindings([drive({ corrected: rising })], now)
  expect(told).toMatchObject({ check: 'drive-errors', gravity: 'soon' })
  expect(told?.evidence).toMatch(/^ABC123 corrected 555 errors in the last week, 247 .*double every 6 days/)
  expect(told?.risk).toContain('bulk has lost nothing')
  const [free] = driveFindings([drive({ corrected: rising, poolId: null, poolName: null })], now)
  expect(free?.risk).toContain('carries nothing yet')
})

test('one that gave up even once calls for work now', () => {
  const [told] = driveFindings([drive({ lost: daily(daysAgo => (daysAgo < 3 ? 2 : 0)) })], now)
  expect(told).toMatchObject({
    gravity: 'now',
    title: 'Drive C123 in bittern, shelf 3, bay 7 could not read or write two times',
  })
})
