import { fn, literal, Op } from 'sequelize'
import type { Plan } from '@/core/plan'
import { rows, run, type Scope } from '../database'
import { inside, plain } from '../model'
import { asKept, changeModel, claimModel } from './models'
import { hasten, queue } from './queue'

const carryOutLock = 7_261_555

/** Lets one carrying out at a time be decided, so that of two plans that conflict exactly one finds the estate as it was. */
export const decideAlone = (scope: Required<Scope>) => run(scope, 'select pg_advisory_xact_lock($1)', [carryOutLock])

/** Which of the objects that a plan will touch are held by a running change, with that change's title. */
export async function heldBy(
  scope: Scope,
  claims: readonly string[],
  changeId: string,
): Promise<{ readonly claim: string; readonly title: string; readonly number: number }[]> {
  const where = { claim: [...claims], changeId: { [Op.ne]: changeId } }
  const held = (await claimModel(scope.database).findAll({ where, ...inside(scope) })).map(plain)
  if (held.length === 0) return []
  const holding = await changeModel(scope.database).findAll({
    attributes: ['id', 'title', 'number'],
    where: { id: [...new Set(held.map(each => each.changeId))] },
    ...inside(scope),
  })
  const byId = new Map(holding.map(plain).map(each => [each.id, each]))
  return held.flatMap(each => {
    const by = byId.get(each.changeId)
    return by === undefined ? [] : [{ claim: each.claim, title: by.title, number: by.number }]
  })
}

/** Sets a draft running: claims its objects and queues it. To be called in a transaction that has decided alone. */
export async function setRunning(scope: Required<Scope>, id: string, plan: Plan, estateNow: Date): Promise<void> {
  await changeModel(scope.database).update(
    {
      state: 'running',
      plan: asKept(plan),
      title: plan.title,
      differences: [],
      carriedOutAt: fn('now'),
      carriedOutEstateAt: estateNow,
      refusal: null,
      stands: null,
      idleSeconds: 0,
      isStopWanted: false,
      isUndoWanted: false,
    },
    { where: { id }, ...inside(scope) },
  )
  await claimAgain(scope, id, plan)
  await queue(scope, id)
}

/** Claims the objects of a plan for a change; what it holds already it holds still. */
export async function claimAgain(scope: Required<Scope>, changeId: string, plan: Plan): Promise<void> {
  await claimModel(scope.database).bulkCreate(
    [...new Set(plan.claims)].map(claim => ({ claim, changeId })),
    { ignoreDuplicates: true, returning: false, ...inside(scope) },
  )
}

/** Asks a running change to stop at its next safe point, which is now for one that waits. */
export async function wantStop(scope: Required<Scope>, id: string): Promise<boolean> {
  const [found] = await changeModel(scope.database).update(
    { isStopWanted: true },
    { where: { id, state: 'running' }, ...inside(scope) },
  )
  if (found > 0) await hasten(scope, id)
  return found > 0
}

/** Lets a stopped change go on, or be undone. */
export async function wantResume(scope: Required<Scope>, id: string, isUndoWanted: boolean): Promise<boolean> {
  const [found] = await changeModel(scope.database).update(
    {
      ...{ state: 'running', isStopWanted: false, isUndoWanted, endedAt: null, endedEstateAt: null },
      idleSeconds: literal('idle_seconds + coalesce(greatest(0, extract(epoch from now() - ended_at)), 0)'),
    },
    { where: { id, state: ['stopped', 'unproven'] }, ...inside(scope) },
  )
  if (found > 0) await queue(scope, id)
  return found > 0
}

/**
 * Volumes whose holding has ended by the estate's time, that stand on systems which answer, that no change holds, and whose deletion
 * has not failed within the last hour: one that cannot be deleted now must not hold up the others. A draft alone is no try: the process
 * that made it may have died before it carried it out.
 */
export const heldVolumesPast = (scope: Scope, estateNow: Date, limit: number) =>
  rows<{ readonly id: string; readonly name: string }>(
    scope,
    `select v.id, v.name from volumes v join systems s on s.id = v.system_id
     where v.state = 'holding' and v.holding_until < $1 and v.missing_since is null and s.reach = 'answering'
       and not exists (select 1 from claims where claim = v.id::text)
       and not exists (select 1 from changes c where c.intent ? 'volumeId' and c.intent ->> 'volumeId' = v.id::text and c.kind = 'delete-held-volume'
         and (c.state in ('running', 'stopped') or c.ended_at > now() - interval '1 hour'))
     order by v.holding_until limit $2`,
    [estateNow.toISOString(), limit],
  )

/** Titles of running or stopped changes that rest on a system, other than one change itself. */
export const atWorkOn = (scope: Scope, systemIds: readonly string[], changeId: string | null) =>
  rows<{ readonly system_id: string; readonly title: string; readonly number: number }>(
    scope,
    `select distinct r ->> 'id' as system_id, title, number from changes, jsonb_array_elements(plan -> 'reads') r
     where state in ('running', 'stopped') and id is distinct from $2::uuid and r ->> 'kind' = 'system' and r ->> 'id' = any($1)`,
    [systemIds, changeId],
  )
