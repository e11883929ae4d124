import type { HealthPage, SourceLine, WornLine } from '@/core/views'
import { row, rows, type Scope } from '../database'
import { standingFindings } from './rowPage'

const mostDrives = 8
const mostSensors = 8

/** What stands of the whole estate's health: findings, drives and sensors that are worth a look, and how fresh what is known is. */
export async function healthPage(scope: Scope): Promise<HealthPage> {
  const counts = await row<{ readonly drives: number; readonly sensors: number }>(
    scope,
    `select (select count(*)::int from drives where missing_since is null) as drives,
       (select coalesce(sum(jsonb_array_length(sensors)), 0)::int from systems) as sensors`,
  )
  return {
    findings: await standingFindings(scope, null),
    sources: await sources(scope),
    drives: await drivesToLookAt(scope),
    sensors: await sensorsByNearness(scope),
    sensorCount: counts?.sensors ?? 0,
    driveCount: counts?.drives ?? 0,
  }
}

const iso = (at: Date | null) => at?.toISOString() ?? null

async function sources(scope: Scope): Promise<SourceLine[]> {
  const found = await rows<{
    readonly id: string
    readonly name: string
    readonly reach: SourceLine['reach']
    readonly seen_at: Date | null
    readonly sampled_at: Date | null
    readonly counted_at: Date | null
    readonly gap_since: Date | null
    readonly refused: SourceLine['refused'] | null
  }>(
    scope,
    `select systems.id, name, reach, seen_at, sampled_at, counted_at, gap_since, refused
     from systems left join metric_sources on system_id = systems.id order by name, systems.id`,
  )
  return found.map(({ id, name, reach, seen_at, sampled_at, counted_at, gap_since, refused }) => ({
    ...{ id, name, reach, refused: refused ?? {} },
    seenAt: iso(seen_at),
    levelsUntil: iso(sampled_at),
    countersUntil: iso(counted_at),
    gapSince: iso(gap_since),
  }))
}

const drivesToLookAt = (scope: Scope) =>
  rows<WornLine>(
    scope,
    `select drives.id, drives.name, drives.serial, drives.model, systems.name as "systemName", pools.id as "poolId", pools.name as "poolName", drives.state,
       corrected_errors as "correctedErrors", lost_errors as "lostErrors", wear_ratio as "wearRatio", power_on_hours as "powerOnHours"
     from drives join systems on systems.id = drives.system_id left join pools on pools.id = drives.pool_id
     where drives.missing_since is null and (drives.state <> 'fine' or wear_ratio is not null or corrected_errors > 0 or lost_errors > 0)
     order by drives.state = 'fine', coalesce(lost_errors, 0) desc, coalesce(corrected_errors, 0) desc, wear_ratio desc nulls last, drives.id limit ${mostDrives}`,
  )

/** The nearest to their caution first. */
const sensorsByNearness = (scope: Scope) =>
  rows<HealthPage['sensors'][number]>(
    scope,
    `select systems.id as "systemId", systems.name as "systemName", sensor ->> 'name' as name, sensor ->> 'unit' as unit,
       (sensor ->> 'reading')::float8 as reading, (sensor ->> 'cautionAt')::float8 as "cautionAt"
     from systems cross join jsonb_array_elements(sensors) as sensor
     order by (sensor ->> 'reading')::float8 / nullif((sensor ->> 'cautionAt')::float8, 0) desc nulls last, systems.name, 3
     limit ${mostSensors}`,
  )
