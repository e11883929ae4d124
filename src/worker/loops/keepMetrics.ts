import { driveFindings } from '@/core/findings'
import type { Scope } from '@/records'
import { estateNow, keepFindings, keepPromiseLooks, notePromises } from '@/records/inventory'
import {
  areForecastsDue,
  caughtUp,
  countedDrives,
  dropOldMetrics,
  incomingBytes,
  keepForecasts,
  keepPast,
  keepRecent,
  noteFollowed,
  packIncoming,
} from '@/records/metrics'
import { classUses } from '@/records/queries'
import type { World } from '../World'
import { eachByItself } from './eachByItself'

/** Forecasts look ahead in days: they are made anew this often (milliseconds of estate time). */
const forecastMilliseconds = 3_600_000
/** What has come is packed so often, or when it is so much: each packing writes a whole pack for a few samples. */
const packMilliseconds = 10 * 60_000
const mostIncomingBytes = 32 * 2 ** 20
const dayMilliseconds = 86_400_000

/** Tells of drives by what they have counted over weeks. */
async function judgeDrives(scope: Scope, now: Date): Promise<void> {
  for (const [systemId, drives] of await countedDrives(scope, now))
    await keepFindings(scope, systemId, 'drives', driveFindings(drives, now.getTime()))
}

/** What classes promise is looked at by the hour, and of what is promised of any moment each look counts; latency and snapshots are measured by themselves. */
async function lookAtPromises(scope: Scope, now: Date): Promise<void> {
  const uses = await classUses(scope)
  const kept = uses.map(({ serviceClass: { id, name }, volumes, promises }) => ({ id, name, volumes, promises }))
  await keepPromiseLooks(scope.database, kept, now)
  const looks = uses.flatMap(({ serviceClass, promises }) =>
    promises
      .filter(({ promise }) => promise !== 'latency' && promise !== 'snapshots')
      .map(({ promise, promised, counts }) => {
        const kept = counts.kept + counts['at risk']
        return { classId: serviceClass.id, promise, promised, volumes: kept + counts.broken, kept }
      }),
  )
  await notePromises(scope, looks, now)
}

/** When each was last done by this process: packing by the wall's time, dropping by the estate's. */
const doneAt = new WeakMap<World, { packed: number; dropped: number }>()

/** Packs what has come, makes forecasts of it when they are due, and lets go what is older than what is kept. */
export async function keepMetrics(world: World): Promise<void> {
  const scope = { database: world.database }
  const done = doneAt.get(world) ?? { packed: 0, dropped: 0 }
  doneAt.set(world, done)
  const now = await estateNow(scope)
  // Asked for before anything is packed: what comes in from then on stands until the next time.
  const came = await caughtUp(scope)
  const isDue = came !== undefined || (await areForecastsDue(scope, new Date(now.getTime() - forecastMilliseconds)))
  const isMuch = Date.now() - done.packed >= packMilliseconds || (await incomingBytes(scope)) > mostIncomingBytes
  const pack = async () => {
    await packIncoming(world.database)
    done.packed = Date.now()
  }
  const judged = [keepPast, keepRecent, keepForecasts, judgeDrives, lookAtPromises]
  const drop = async () => {
    await dropOldMetrics(scope, now)
    done.dropped = now.getTime()
  }
  await eachByItself([
    ...(isDue || isMuch ? [pack] : []),
    ...(isDue ? judged.map(each => () => each(scope, now)) : []),
    ...(now.getTime() - done.dropped < dayMilliseconds ? [] : [drop]),
  ])
  if (came !== undefined) await noteFollowed(scope, came)
}
