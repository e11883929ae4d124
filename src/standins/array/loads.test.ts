import { testFleet } from '../testing/serviceOf'
import { blockVolumes, type VolumeEntity } from '.'
import { fastest, requestsAt, servedAt, shownCounters } from './loads'

const hour = 3_600_000
const monday = Date.UTC(2026, 4, 4)
const office = {
  requestsPerSecond: 100,
  readShare: 0.5,
  bytesEach: 4096,
  cacheHit: 0,
  shape: 'office',
  seed: 'x',
} as const

test('an office asks by day and rests at the end of the week; a peak is on its day only', () => {
  const at = (days: number, hours: number, peaks = {}) =>
    requestsAt({ ...office, ...peaks }, monday + (days * 24 + hours) * hour)
  expect(at(1, 10.5)).toBeGreaterThan(4 * at(1, 3))
  expect(at(1, 10.5)).toBeGreaterThan(2 * at(5, 10.5))
  const peaks = { peaks: [{ weekday: 0, fromHour: 8, toHour: 11.5, factor: 5 }] }
  expect(at(0, 10, peaks)).toBeCloseTo(5 * at(0, 10), 6)
  expect(at(1, 10, peaks)).toBe(at(1, 10))
})

test('counters go round at their width, and times are durations', () =>
  expect(shownCounters([2 ** 32 + 5.7, 3, 0, 2 ** 33, 61.25, 0, 4.9])).toEqual({
    ReadIORequests: '5',
    WriteIORequests: '3',
    ReadIOKiBytes: '0',
    WriteIOKiBytes: '0',
    ReadHitIORequests: '4',
    ReadIORequestTime: 'PT61.250S',
    WriteIORequestTime: 'PT0.000S',
  }))

test('one that asks for much makes the others of its pool wait, and not those of another', async () => {
  const { fleet, stop } = await testFleet(1)
  try {
    const bittern = fleet.arrays.find(each => each.model.name === 'bittern')
    if (bittern === undefined) throw new Error('no bittern')
    const latency = (poolId: string, name: string, at: number) => {
      const pool = bittern.one('pools', poolId)
      const own = bittern.all('volumes').filter(each => each.poolId === poolId)
      return servedAt(bittern, pool, own, at)[own.findIndex(each => each.name === name)]?.readSeconds ?? 0
    }
    const [peak, usual] = [monday + 10 * hour, monday + 34 * hour]
    expect(latency('bittern-bulk-01', 'staff-homes-01', peak)).toBeGreaterThan(
      3 * latency('bittern-bulk-01', 'staff-homes-01', usual),
    )
    const fast =
      latency('bittern-fast-01', 'ticket-desk-01', peak) / latency('bittern-fast-01', 'ticket-desk-01', usual)
    expect(Math.abs(fast - 1)).toBeLessThan(0.05)
    const homes = bittern.one('volumes', 'staff-homes-01')
    const derived = bittern.all('volumes').filter(each => each.poolId === 'bittern-bulk-01')
    const asks = ({ load, name }: VolumeEntity) => (load === undefined ? 0 : requestsAt({ ...load, seed: name }, peak))
    const others = derived.filter(({ name }) => name !== 'staff-homes-01')
    const loudest = others.reduce((most, each) => (asks(each) > asks(most) ? each : most))
    const waited = latency('bittern-bulk-01', 'staff-homes-01', peak)
    blockVolumes.limitVolume(bittern, loudest.id, { requestsPerSecond: 50, bytesPerSecond: null })
    expect(latency('bittern-bulk-01', 'staff-homes-01', peak)).toBeLessThan(waited / 2)
    expect(latency('bittern-bulk-01', loudest.name, peak)).toBeGreaterThan(waited)
    expect(fastest(bittern, bittern.one('volumes', loudest.id), 4096)).toBeLessThanOrEqual(50)
    expect(fastest(bittern, homes, 4096)).toBeGreaterThan(50)
    blockVolumes.limitVolume(bittern, loudest.id, { requestsPerSecond: null, bytesPerSecond: null })
    const counted = bittern.one('loadCounters', 'now')
    expect(bittern.all('loadsByHour').length).toBeGreaterThanOrEqual(15 * 24 - 1)
    const latest = bittern.all('loadsByHour').sort((a, b) => b.at - a.at)[0]
    const grown = (counted.volumes['staff-homes-01']?.[0] ?? 0) - (latest?.volumes['staff-homes-01']?.[0] ?? 0)
    expect(grown).toBeGreaterThanOrEqual(0)
  } finally {
    await stop()
  }
})
