import { randomBytes } from 'node:crypto'
import type { MeasuredSample } from '@/ports'
import { setSetting } from '@/records'
import { keepClock, nextReading, storeInventory } from '@/records/inventory'
import { metricSource, samplesBetween } from '@/records/metrics'
import { objects } from '@/records/objects'
import { enrolled, freshDatabase, sampleInventory } from '@/records/testing'
import type { World } from '../World'
import { Metering } from './Metering'

const hour = 3_600_000
const noon = Date.UTC(2026, 4, 4, 12)

test('what a system tells by the day does not end the hours that it has yet to tell', async () => {
  const { database, close } = await freshDatabase()
  const scope = { database }
  try {
    const { systemId } = await enrolled(scope, randomBytes(32), 'heron')
    const inventory = sampleInventory()
    await storeInventory(database, systemId, inventory, await nextReading(scope), undefined)
    await setSetting(scope, 'estate-clock', 'systems')
    let told: readonly MeasuredSample[] = []
    const system = { of: async () => ({ levelsSince: async () => told }) }
    const readAt = new Map<string, Date>()
    // So quick that a history that ended early is asked for again at once.
    const world = { database, readAt, system: async () => system, pace: 1e9 } as unknown as World
    const metering = new Metering(world, systemId)
    const [volume] = await objects(scope, 'volumes')
    const place = volume?.locator ?? ''
    const keptAt = async (hoursAfter: number) => {
      const estateAt = new Date(noon + hoursAfter * hour)
      await keepClock(scope, { wallAt: new Date().toISOString(), estateAt: estateAt.toISOString(), rate: 1 })
      readAt.set(systemId, estateAt)
      await metering.keep()
      const end = new Date(noon + 100 * hour)
      const { times } = await samplesBetween(scope, 'written', volume?.id ?? '', new Date(0), end)
      return Array.from(times, at => (at - noon) / hour)
    }
    const written = (hoursAfter: number) => ({
      ...{ locator: place, metric: 'written' as const, at: noon + hoursAfter * hour, value: 1e9 + hoursAfter },
    })
    told = [-2, -1, 0].map(written)
    expect(await keptAt(0)).toEqual([-2, -1, 0])
    expect((await metricSource(scope, systemId)).gapSince).toBeUndefined()
    // A day later only midnight's errors are stated yet; a moment later the hours are.
    const midnight = {
      locator: inventory.drives[0]?.locator ?? '',
      metric: 'errors' as const,
      at: noon + 12 * hour,
      value: 3,
    }
    told = [midnight]
    await keptAt(24)
    expect((await metricSource(scope, systemId)).gapSince?.getTime()).toBe(noon)
    told = [midnight, ...[1, 2, 3, 22, 23, 24].map(written)]
    expect(await keptAt(24.01)).toEqual([-2, -1, 0, 1, 2, 3, 22, 23, 24])
    expect((await metricSource(scope, systemId)).gapSince).toBeUndefined()
  } finally {
    await close()
  }
})
