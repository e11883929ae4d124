import { randomBytes } from 'node:crypto'
import { readSampleLines, type MetricName } from '@/core/metrics'
import { nextReading, storeInventory } from '../inventory'
import { objects } from '../objects'
import { enrolled, freshDatabase, sampleInventory } from '../testing'
import { bringIn, packIncoming, samplesBetween } from '.'

let records: Awaited<ReturnType<typeof freshDatabase>>
let poolId = ''
let volumeId = ''
const now = new Date('2026-05-04T10:00:00Z')
beforeAll(async () => {
  records = await freshDatabase()
  const scope = { database: records.database }
  const { systemId } = await enrolled(scope, randomBytes(32), 'heron')
  await storeInventory(records.database, systemId, sampleInventory(), await nextReading(scope))
  poolId = (await objects(scope, 'pools'))[0]?.id ?? ''
  volumeId = (await objects(scope, 'volumes'))[0]?.id ?? ''
})
afterAll(() => records.close())

const brought = (...lines: readonly string[]) =>
  bringIn(records.database, readSampleLines(['object,metric,at,value', ...lines].join('\n'), 'CSV').samples, now)
const kept = async (metric: MetricName, id: string) => {
  const all = await samplesBetween({ database: records.database }, metric, id, new Date(0), new Date('2100-01-01'))
  return Array.from(all.times, (at, index) => [new Date(at).toISOString().slice(0, 10), all.values[index]])
}

test('what is brought in stands with what is there; of one instant the later one counts, packed or not', async () => {
  const days = ['2026-02-01', '2026-02-02', '2026-02-03']
  const lines = days.map((day, index) => `${poolId},written,${day}T00:00:00Z,${1000 + index}`)
  expect(await brought(...lines, `${volumeId},latency,2026-02-01T00:00:00Z,0.004`)).toEqual({ kept: 4, refused: [] })
  await packIncoming(records.database)
  expect(await brought(`${poolId},written,2026-02-02T00:00:00Z,77`)).toMatchObject({ kept: 1 })
  const all = [
    ['2026-02-01', 1000],
    ['2026-02-02', 77],
    ['2026-02-03', 1002],
  ]
  expect(await kept('written', poolId)).toEqual(all)
  await packIncoming(records.database)
  expect(await kept('written', poolId)).toEqual(all)
  expect(await kept('latency', volumeId)).toEqual([['2026-02-01', 0.004]])
})

test('what cannot be kept is told with its line, and keeps nothing else from being kept', async () => {
  const nobody = '00000000-0000-4000-8000-000000000000'
  const { kept: count, refused } = await brought(
    `${nobody},written,2026-03-01T00:00:00Z,1`,
    `${volumeId},held,2026-03-01T00:00:00Z,1`,
    `${poolId},written,2026-03-01T00:00:00Z,-1`,
    `${poolId},written,2026-06-01T00:00:00Z,1`,
    `${poolId},written,2020-06-01T00:00:00Z,1`,
    `${poolId},held,2026-03-01T00:00:00Z,5`,
  )
  expect(count).toBe(1)
  expect(refused).toEqual([
    { line: 2, why: 'No pool, volume, drive, share or system has that id.' },
    { line: 3, why: 'Of volumes no held is kept.' },
    { line: 4, why: 'It is below zero.' },
    { line: 5, why: 'It is from the future.' },
    { line: 6, why: 'It is older than what is kept.' },
  ])
  expect(await kept('held', poolId)).toEqual([['2026-03-01', 5]])
})

test('two who bring in the same at once both do, and it is there once', async () => {
  const lines = [1, 2, 3].map(day => `${volumeId},requests,2026-03-0${day}T00:00:00Z,${day}`)
  const both = await Promise.all([brought(...lines), brought(...lines)])
  expect(both.map(each => each.kept)).toEqual([3, 3])
  expect(await kept('requests', volumeId)).toHaveLength(3)
})
