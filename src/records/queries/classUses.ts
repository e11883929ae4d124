import { latestDueOf, promisesOf, type PromiseKept, type PromiseName } from '@/core/classes'
import type { Pool, ServiceClass } from '@/core/estate'
import type { PromiseCount } from '@/core/views'
import { rows, type Scope } from '../database'
import { estateNow } from '../inventory'
import { objects } from '../objects'

/** A class, how much stands under it, and how its promises are kept. */
export interface ClassUse {
  readonly serviceClass: ServiceClass
  readonly volumes: number
  readonly sizeBytes: bigint
  readonly promises: readonly PromiseCount[]
}

/** Volumes of one class in one pool that keep their promises alike. */
interface Alike {
  readonly class_id: string
  readonly pool_id: string
  readonly is_lost: boolean
  /** None has been taken yet; the latest is not the one that was due; it is. */
  readonly taken: 'none' | 'late' | 'in time'
  /** Of what is promised of latency, what is used up: one figure for those that keep it, that nearly do and that do not. */
  readonly latency_ratio: number | null
  readonly mirror: 'filling' | 'alike' | 'broken' | null
  readonly volumes: number
  readonly size: string
}

/** A busy system may be so late with a snapshot. */
const lateMilliseconds = 15 * 60_000

/** All classes with what stands under them: judged by groups of volumes that are alike, however many there are. */
export async function classUses(scope: Scope): Promise<ClassUse[]> {
  const classes = await objects(scope, 'serviceClasses')
  if (classes.length === 0) return []
  const now = await estateNow(scope)
  const pools = new Map((await objects(scope, 'pools')).map(each => [each.id, each]))
  const due = classes.flatMap(serviceClass => {
    const at = latestDueOf(serviceClass, new Date(now.getTime() - lateMilliseconds))
    return at === undefined ? [] : [{ id: serviceClass.id, at: at.toISOString() }]
  })
  const alike = await rows<Alike>(
    scope,
    `with due as (select * from jsonb_to_recordset($1::jsonb) as d(id uuid, at timestamptz))
     select class_id, pool_id, lost_bytes > 0 as is_lost,
       case when due.at is null or latest.at >= due.at then 'in time' when latest.at is null then 'none' else 'late' end as taken,
       case when recent_p95 * 1000 > latency_milliseconds then 2 when recent_p95 * 1250 > latency_milliseconds then 0.9
         when recent_p95 * 1000 <= latency_milliseconds then 0.5 end::float8 as latency_ratio,
       mirror->>'state' as mirror, count(*)::int as volumes, sum(size_bytes)::text as size
     from volumes left join due on due.id = class_id
     join service_classes on service_classes.id = class_id
     left join metric_series on object_id = volumes.id and metric = 'latency' and latency_milliseconds is not null
     left join lateral (
       -- by the index snapshots_by_due
       select max(due_at) as at from snapshots where volume_id = volumes.id and due_at is not null and goes_at is null) latest on due.at is not null
     where class_id is not null and missing_since is null and volumes.state = 'in use'
     group by 1, 2, 3, 4, 5, 6`,
    [JSON.stringify(due)],
  )
  return classes.map(serviceClass => {
    const own = alike.filter(each => each.class_id === serviceClass.id)
    return {
      serviceClass,
      volumes: own.reduce((sum, { volumes }) => sum + volumes, 0),
      sizeBytes: own.reduce((sum, { size }) => sum + BigInt(size), 0n),
      promises: counted(own, serviceClass, pools, due.find(({ id }) => id === serviceClass.id)?.at, now),
    }
  })
}

function counted(
  own: readonly Alike[],
  serviceClass: ServiceClass,
  pools: ReadonlyMap<string, Pool>,
  due: string | undefined,
  now: Date,
): PromiseCount[] {
  const sums = new Map<PromiseName, { promised: string; counts: Record<PromiseKept['state'], number> }>()
  const none = { pool_id: '', is_lost: false, taken: 'in time', latency_ratio: null, mirror: null, volumes: 0 } as const
  for (const { pool_id, is_lost, taken, latency_ratio, mirror, volumes } of own.length === 0 ? [none] : own) {
    const before = due === undefined ? null : new Date(Date.parse(due) - 1).toISOString()
    const moment = taken === 'none' ? null : taken === 'late' ? before : (due ?? null)
    const snapshots =
      moment === null ? [] : [{ takenAt: moment, dueAt: moment, goesAt: null, state: 'consistent' as const }]
    const p95Seconds = latency_ratio === null ? null : (latency_ratio * (serviceClass.latencyMilliseconds ?? 0)) / 1000
    const around = { serviceClass, pool: pools.get(pool_id), snapshots, now, p95Seconds }
    const alike = {
      lostBytes: is_lost ? 1n : 0n,
      mirror: mirror === null ? null : { role: 'source' as const, state: mirror, partner: null },
    }
    for (const { promise, promised, state } of promisesOf(alike, around)) {
      const sum = sums.get(promise) ?? { promised, counts: { kept: 0, 'at risk': 0, broken: 0, 'not measured': 0 } }
      sum.counts[state] += volumes
      sums.set(promise, sum)
    }
  }
  return [...sums].map(([promise, sum]) => ({ promise, ...sum }))
}
