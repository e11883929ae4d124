import type { ServiceClass, Share, Volume } from '@/core/estate'
import { v7 as uuid } from 'uuid'
import { row, run, type Scope } from '../database'
import { inside } from '../model'
import { modelOf } from '../objects'

/** Keeps a service class as it is given. @param key of the step that makes a new one: it makes one only, however often it runs. @returns its id */
export async function keepClass(
  scope: Scope,
  kept: Omit<ServiceClass, 'id' | 'revision'>,
  id: string | null,
  key: string,
): Promise<string> {
  if (id !== null) {
    await modelOf(scope.database, 'serviceClasses').update(kept, { where: { id }, ...inside(scope) })
    return id
  }
  await run(
    scope,
    `insert into service_classes (id, name, losses_survived, media, latency_milliseconds, headroom_ratio, snapshot_rule, time_zone, retention,
       holding_days, quiet_hours, made_by_step, copy_within_minutes, default_group_id)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9::jsonb, $10, $11::jsonb, $12, $13, $14) on conflict (made_by_step) do nothing`,
    [
      uuid(),
      kept.name,
      kept.lossesSurvived,
      kept.media,
      kept.latencyMilliseconds,
      kept.headroomRatio,
      kept.snapshotRule,
      kept.timeZone,
      JSON.stringify(kept.retention),
      kept.holdingDays,
      kept.quietHours === null ? null : JSON.stringify(kept.quietHours),
      key,
      kept.copyWithinMinutes,
      kept.defaultGroupId,
    ],
  )
  const made = await row<{ readonly id: string }>(scope, 'select id from service_classes where made_by_step = $1', [
    key,
  ])
  return made?.id ?? ''
}

export const dropClass = (scope: Scope, id: string): Promise<void> =>
  run(scope, 'delete from service_classes where id = $1', [id])

/** Says what volumes serve; null takes it back. */
export async function setApplication(
  scope: Scope,
  volumeIds: readonly string[],
  application: string | null,
): Promise<void> {
  await modelOf(scope.database, 'volumes').update({ application }, { where: { id: [...volumeIds] }, ...inside(scope) })
}

/** Says where hosts stand. */
export async function placeHosts(scope: Scope, hostIds: readonly string[], siteId: string | null): Promise<void> {
  await modelOf(scope.database, 'hosts').update({ siteId }, { where: { id: [...hostIds] }, ...inside(scope) })
}

/** Says whether a volume is an image, which is copied from and never written. */
export async function setImage(scope: Scope, volumeId: string, isImage: boolean): Promise<void> {
  await modelOf(scope.database, 'volumes').update({ isImage }, { where: { id: volumeId }, ...inside(scope) })
}

/** Keeps a pool for the volumes of one application; null gives it to all. */
export async function keepPool(scope: Scope, poolId: string, keptFor: string | null): Promise<void> {
  await modelOf(scope.database, 'pools').update({ keptFor }, { where: { id: poolId }, ...inside(scope) })
}

/** Says what people call a share by, and when to warn of its fill. */
export async function noteShare(
  scope: Scope,
  shareId: string,
  { labels, warnPercent }: { readonly labels: readonly string[]; readonly warnPercent: Share['warnPercent'] },
): Promise<void> {
  const notes = { labels: [...labels], warnPercent }
  await modelOf(scope.database, 'shares').update(notes, { where: { id: shareId }, ...inside(scope) })
}

/** Gives volumes a schedule of their own; null has them go by their classes. */
export async function setSchedule(
  scope: Scope,
  volumeIds: readonly string[],
  ownSchedule: Volume['ownSchedule'],
): Promise<void> {
  await modelOf(scope.database, 'volumes').update({ ownSchedule }, { where: { id: [...volumeIds] }, ...inside(scope) })
}

/** Puts volumes under a class, or under none. */
export async function setClass(scope: Scope, volumeIds: readonly string[], classId: string | null): Promise<void> {
  await modelOf(scope.database, 'volumes').update({ classId }, { where: { id: [...volumeIds] }, ...inside(scope) })
}
