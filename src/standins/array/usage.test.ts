import { testFleet } from '../testing/serviceOf'
import { grownBetween } from './usage'

const day = 86_400_000
const hour = 3_600_000
const monday = Date.UTC(2026, 4, 4)
const weekly = { bytesPerDay: 7000, isWeekly: true }

test('a week of a course is seven days of its growth, in whatever parts it is looked at', () => {
  expect(grownBetween(weekly, monday, monday + 7 * day)).toBeCloseTo(49_000, 6)
  const cut = monday + 2.3 * day
  const end = monday + 9.7 * day
  expect(grownBetween(weekly, monday, cut) + grownBetween(weekly, cut, end)).toBeCloseTo(
    grownBetween(weekly, monday, end),
    6,
  )
  expect(grownBetween(weekly, monday, monday + day)).toBeGreaterThan(
    3 * grownBetween(weekly, monday + 6 * day, monday + 7 * day),
  )
})

test('a step counts at its instant, once', () => {
  const stepped = { bytesPerDay: 0, isWeekly: false, steps: [{ at: monday + 5, bytes: -300 }] }
  expect(grownBetween(stepped, monday, monday + 5)).toBe(-300)
  expect(grownBetween(stepped, monday + 5, monday + day)).toBe(0)
})

interface Value {
  readonly MetricProperty: string
  readonly MetricValue: string
  readonly Timestamp: string
}

test('the history leads up to the present without a step, goes on with the clock, and is told by hour and by day', async () => {
  const { fleet, ask, stop } = await testFleet(1)
  try {
    const bulk = '/redfish/v1/Storage/1/StoragePools/bittern-bulk-01'
    const report = async (id: string) => {
      const { body } = await ask('bittern', 'GET', `/redfish/v1/TelemetryService/MetricReports/${id}`)
      return (body['MetricValues'] as readonly Value[])
        .filter(each => each.MetricProperty === `${bulk}#/Capacity/Data/ConsumedBytes`)
        .map(each => ({ at: Date.parse(each.Timestamp), bytes: Number(each.MetricValue) }))
    }
    const written = async () => {
      const { body } = await ask('bittern', 'GET', bulk)
      return (body['Capacity'] as { readonly Data: { readonly ConsumedBytes: number } }).Data.ConsumedBytes
    }
    const before = await written()
    const days = await report('SpaceByDay')
    expect(days).toHaveLength(120)
    expect(days.every(({ at }) => at % day === 0)).toBe(true)
    const grown = before - (days.at(-1)?.bytes ?? 0)
    expect(grown).toBeGreaterThanOrEqual(0)
    expect(grown).toBeLessThan(300 * 2 ** 30)
    fleet.clock.step(50 * 3600)
    for (let waited = 0; (await written()) <= before && waited < 100; waited += 1)
      await new Promise(resolve => setTimeout(resolve, 100))
    const hours = await report('SpaceByHour')
    expect(hours.at(-1)?.at).toBe(Math.floor(fleet.clock.now() / hour) * hour)
    const gaps = hours.slice(1).map(({ at }, index) => at - (hours[index]?.at ?? 0))
    expect(new Set(gaps)).toEqual(new Set([hour]))
    expect(hours.slice(1).every(({ bytes }, index) => bytes >= (hours[index]?.bytes ?? 0))).toBe(true)
    expect((await report('SpaceByDay')).length).toBeLessThanOrEqual(121)
  } finally {
    await stop()
  }
})
