import { randomBytes } from 'node:crypto'
import type { MeasuredCounters } from '@/ports'
import { setSetting } from '@/records'
import { keepClock, nextReading, storeInventory } from '@/records/inventory'
import { metricSource, samplesBetween } from '@/records/metrics'
import { objects } from '@/records/objects'
import { enrolled, freshDatabase, sampleInventory } from '@/records/testing'
import type { World } from '../World'
import { Loads } from './Loads'

const hour = 3_600_000
const noon = Date.UTC(2026, 4, 4, 12)
/** Counters of the first volume, a hundred requests an hour. */
const counters = (hoursAfter: number): MeasuredCounters => {
  const requests = (hoursAfter + 10) * 100
  return {
    ...{ locator: '/v/0', at: noon + hoursAfter * hour, readRequests: requests, writeRequests: 0 },
    ...{
      readHits: requests,
      readKibibytes: requests,
      writeKibibytes: 0,
      readSeconds: requests / 1000,
      writeSeconds: 0,
    },
  }
}

/** A system that has been read, whose time is the estate's; @returns its id */
async function heron(scope: { readonly database: Awaited<ReturnType<typeof freshDatabase>>['database'] }) {
  const { systemId } = await enrolled(scope, randomBytes(32), 'heron')
  await storeInventory(scope.database, systemId, sampleInventory(), await nextReading(scope), undefined)
  await setSetting(scope, 'estate-clock', 'systems')
  return systemId
}

test('what a system tells by itself is kept where it goes on from what is known; what lies between is asked for', async () => {
  const { database, close } = await freshDatabase()
  const scope = { database }
  try {
    const systemId = await heron(scope)
    const minute = 1 / 60
    const asked: number[] = []
    let told: readonly MeasuredCounters[] = []
    const countersSince = async (since: Date) => {
      asked.push((since.getTime() - noon) / 60_000)
      return told
    }
    const system = { of: async () => ({ countersSince }) }
    const world = { database, kept: new Map([[systemId, {}]]), system: async () => system } as unknown as World
    const loads = new Loads(world, systemId)
    const keptAt = async (minutes: number, heard: readonly number[] = []) => {
      loads.hear(heard.map(each => counters(each * minute)))
      await keepClock(scope, {
        ...{ wallAt: new Date().toISOString(), estateAt: new Date(noon + minutes * 60_000).toISOString(), rate: 1 },
      })
      await loads.keep()
      const volume = (await objects(scope, 'volumes')).find(({ locator }) => locator === '/v/0')
      const found = await samplesBetween(scope, 'requests', volume?.id ?? '', new Date(0), new Date(noon + 100 * hour))
      return Array.from(found.times, at => Math.round((at - noon) / 60_000))
    }
    // What is heard before anything is known joins nothing.
    told = [counters(-minute), counters(0)]
    expect(await keptAt(0, [0])).toEqual([0])
    expect(asked).toHaveLength(1)
    expect(await keptAt(1, [1])).toEqual([0, 1])
    expect(await keptAt(1.2, [])).toEqual([0, 1])
    expect(await keptAt(3, [2, 2, 3])).toEqual([0, 1, 2, 3])
    expect(asked).toHaveLength(1)
    // The stream was away for a while, or tells of the future: the system is asked from where it ended.
    told = [4, 5, 6, 7, 8].map(each => counters(each * minute))
    expect(await keptAt(8, [8])).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8])
    expect(await keptAt(9.5, [500])).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8])
    expect(asked.slice(1)).toEqual([3, 8])
    // Nothing is waited for once it is known that something lies between.
    told = [9, 12].map(each => counters(each * minute))
    expect(await keptAt(9.9, [])).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8])
    expect(await keptAt(12, [12])).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 12])
  } finally {
    await close()
  }
})

test('what a clock that is ahead tells is nothing to rest on: the hours until then are kept once they are there', async () => {
  const { database, close } = await freshDatabase()
  const scope = { database }
  try {
    const systemId = await heron(scope)
    let told: readonly MeasuredCounters[] = []
    const system = { of: async () => ({ countersSince: async () => told }) }
    const world = { database, kept: new Map([[systemId, {}]]), system: async () => system } as unknown as World
    const loads = new Loads(world, systemId)
    const keptAt = async (hoursAfter: number) => {
      const estateAt = new Date(noon + hoursAfter * hour).toISOString()
      await keepClock(scope, { wallAt: new Date().toISOString(), estateAt, rate: 1 })
      await loads.keep()
      const volume = (await objects(scope, 'volumes')).find(({ locator }) => locator === '/v/0')
      const found = await samplesBetween(scope, 'requests', volume?.id ?? '', new Date(0), new Date(noon + 100 * hour))
      return Array.from(found.times, at => (at - noon) / hour)
    }
    told = [counters(-2), counters(-1), counters(5)]
    expect(await keptAt(0)).toEqual([-1])
    told = [{ ...counters(0), at: Number.NaN }, counters(-1), ...[0, 1, 2, 3, 4, 5].map(counters)]
    const refused = async () => (await metricSource(scope, systemId)).refused
    expect(await refused()).toEqual({ 'is from the future': 1 })
    expect(await keptAt(5.5)).toEqual([-1, 0, 1, 2, 3, 4, 5])
    expect(await refused()).toEqual({ 'is from the future': 1, 'is not a number': 1 })
    // Told again, it is no other.
    expect(await keptAt(5.6)).toEqual([-1, 0, 1, 2, 3, 4, 5])
    expect(await refused()).toEqual({ 'is from the future': 1, 'is not a number': 1 })
  } finally {
    await close()
  }
})

test('what a system makes up is forgotten once there is much of it; what it has stated goes on', async () => {
  const { database, close } = await freshDatabase()
  const scope = { database }
  try {
    const systemId = await heron(scope)
    const minute = 1 / 60
    let told: readonly MeasuredCounters[] = []
    const system = { of: async () => ({ countersSince: async () => told }) }
    const world = { database, kept: new Map([[systemId, {}]]), system: async () => system } as unknown as World
    const loads = new Loads(world, systemId)
    const madeUp = (minutes: number) =>
      Array.from({ length: 11_000 }, (_, index) => ({ ...counters(minutes * minute), locator: `/made/up/${index}` }))
    const keep = async (minutes: number, heard: readonly MeasuredCounters[]) => {
      // Each by itself, as a system may tell it.
      for (const each of heard) loads.hear([each])
      const estateAt = new Date(noon + minutes * 60_000).toISOString()
      await keepClock(scope, { wallAt: new Date().toISOString(), estateAt, rate: 1 })
      await loads.keep()
    }
    const samples = async (locator: string) => {
      const volume = (await objects(scope, 'volumes')).find(each => each.locator === locator)
      const found = await samplesBetween(scope, 'requests', volume?.id ?? '', new Date(0), new Date(noon + hour))
      return Array.from(found.times, at => Math.round((at - noon) / 60_000))
    }
    told = [counters(0)]
    await keep(0, [])
    await keep(1, [counters(minute), ...madeUp(1)])
    // One of them is there after all: it was forgotten with the others, and begins anew.
    const inventory = sampleInventory()
    const late = { ...inventory.volumes[0], locator: '/made/up/7', naa: `6${'7'.repeat(31)}` }
    const grown = { ...inventory, volumes: [...inventory.volumes, late as (typeof inventory.volumes)[number]] }
    await storeInventory(database, systemId, grown, await nextReading(scope), undefined)
    for (const minutes of [2, 3])
      await keep(minutes, [counters(minutes * minute), { ...counters(minutes * minute), locator: '/made/up/7' }])
    expect([await samples('/v/0'), await samples('/made/up/7')]).toEqual([[1, 2, 3], [3]])
  } finally {
    await close()
  }
})
