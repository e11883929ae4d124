import { fn, literal, Op } from 'sequelize'
import type { ChangeState, Plan } from '@/core/plan'
import type { CodedRefusal } from '@/core/errors'
import type { EvidenceEntry, JournalEntry } from '@/core/views'
import type { Scope } from '../database'
import { inside } from '../model'
import { asKept, changeModel, claimModel, evidenceModel, journalModel, outcomeModel } from './models'
import { endWait } from './waits'
import { planDigest } from './writeDrafts'

/** Adds a mark to a change's journal; a mark that can be made once only is not made again by a step that runs again. */
export async function mark(
  scope: Scope,
  changeId: string,
  entry: {
    readonly stepIndex: number
    readonly event: JournalEntry['event']
    readonly estateAt: Date
    readonly doneRatio?: number
    readonly words?: string
    readonly facts?: object
    /** Of a wait for a system's work: how long it was waited for by the wall, and how long it took by the system's own clock. */
    readonly waited?: { readonly wallSeconds: number; readonly seconds: number }
  },
): Promise<void> {
  const { stepIndex, event, estateAt, doneRatio = null, words = '', facts = {}, waited } = entry
  const made = {
    changeId,
    stepIndex,
    event,
    estateAt,
    doneRatio,
    words,
    facts: asKept(facts) as Record<string, unknown>,
    waitWallSeconds: waited?.wallSeconds ?? null,
    waitedSeconds: waited?.seconds ?? null,
  }
  // What stands already is left as it is.
  await journalModel(scope.database).bulkCreate([made], {
    ignoreDuplicates: true,
    returning: false,
    ...inside(scope),
  })
}

/** Keeps why a change fails before what it has begun is taken back. */
export async function noteRefusal(scope: Scope, id: string, refusal: CodedRefusal): Promise<void> {
  await changeModel(scope.database).update({ refusal: asKept(refusal) }, { where: { id }, ...inside(scope) })
}

export interface ChangeEnd {
  readonly state: Exclude<ChangeState, 'draft' | 'checked' | 'running'>
  readonly estateAt: Date
  readonly facts: Readonly<Record<string, unknown>>
  readonly refusal?: CodedRefusal
  readonly stands?: string
  readonly evidence?: readonly Omit<EvidenceEntry, 'at' | 'attempt'>[]
}

/**
 * Ends a running change in one piece: its evidence, its state, what stands, how long it took, and its claims given back. A stopped
 * change keeps its claims.
 */
export async function endChange(scope: Required<Scope>, changeId: string, end: ChangeEnd): Promise<void> {
  const evidence = end.evidence ?? []
  const attempt = evidence.length === 0 ? 0 : await keepEvidence(scope, changeId, evidence)
  await changeModel(scope.database).update(
    {
      state: end.state,
      endedAt: fn('now'),
      endedEstateAt: end.estateAt,
      facts: asKept(end.facts),
      refusal: end.refusal === undefined ? null : asKept(end.refusal),
      stands: end.stands ?? null,
      isStopWanted: false,
      tookSeconds: await tookSeconds(scope, changeId),
    },
    { where: { id: changeId }, ...inside(scope) },
  )
  await endWait(scope, changeId)
  if (end.state !== 'stopped') await giveClaimsBack(scope, changeId)
  // A change that was stopped meanwhile, or proven at the second try only, says nothing of how long its kind takes.
  if (end.state === 'proven' && attempt === 1) await keepOutcome(scope, changeId)
}

/** Counts a try to prove a change, and keeps what it has shown. @returns the number of the try */
async function keepEvidence(
  scope: Required<Scope>,
  changeId: string,
  evidence: NonNullable<ChangeEnd['evidence']>,
): Promise<number> {
  const { database } = scope
  await changeModel(database).increment('attempt', { by: 1, where: { id: changeId }, ...inside(scope) })
  const found = await changeModel(database).findByPk(changeId, { attributes: ['attempt'], ...inside(scope) })
  const attempt = found?.get({ plain: true }).attempt ?? 1
  await evidenceModel(database).bulkCreate(
    evidence.map(entry => ({ ...entry, measured: asKept(entry.measured), changeId, attempt })),
    { returning: false, ...inside(scope) },
  )
  return attempt
}

/**
 * How long it took, without the time for which it stood still: the wall's time for what waited for requests, and in place of each wait for a system's work the time that the
 * system itself says it took; as the forecast counts it.
 */
async function tookSeconds(scope: Required<Scope>, changeId: string) {
  const waits = await journalModel(scope.database).findAll({
    attributes: ['waitedSeconds', 'waitWallSeconds'],
    where: { changeId, event: 'waited' },
    ...inside(scope),
  })
  const more = waits
    .map(each => each.get({ plain: true }))
    .reduce((sum, { waitedSeconds, waitWallSeconds }) => sum + (waitedSeconds ?? 0) - (waitWallSeconds ?? 0), 0)
  return literal(`greatest(0, extract(epoch from now() - carried_out_at) - idle_seconds + ${Number(more)})`)
}

async function giveClaimsBack(scope: Required<Scope>, changeId: string): Promise<void> {
  await claimModel(scope.database).destroy({ where: { changeId }, ...inside(scope) })
}

/** Keeps how long a proven change took beside its forecast, from which the next one of its kind learns. */
async function keepOutcome(scope: Required<Scope>, changeId: string): Promise<void> {
  const found = await changeModel(scope.database).findByPk(changeId, {
    attributes: ['kind', 'plan', 'tookSeconds'],
    ...inside(scope),
  })
  if (found === null) return
  const { kind, plan, tookSeconds: actualSeconds } = found.get({ plain: true })
  const { baseSeconds, p10Seconds, p50Seconds, p90Seconds } = plan.forecast
  await outcomeModel(scope.database).bulkCreate(
    [{ changeId, kind, baseSeconds, p10Seconds, p50Seconds, p90Seconds, actualSeconds: actualSeconds ?? 0 }],
    { ignoreDuplicates: true, returning: false, ...inside(scope) },
  )
}

/**
 * Puts a running change back to a draft with a new plan, before its first step: the estate was no longer what the plan rested on. One that
 * has begun meanwhile in other hands is left to them.
 * @returns whether it was put back
 */
export async function backToDraft(
  scope: Required<Scope>,
  { id, kind, intent }: { readonly id: string; readonly kind: string; readonly intent: object },
  plan: Plan,
  differences: readonly string[],
): Promise<boolean> {
  const [count] = await changeModel(scope.database).update(
    {
      state: 'draft',
      plan: asKept(plan),
      planDigest: planDigest(kind, intent, plan),
      differences,
      carriedOutAt: null,
      carriedOutEstateAt: null,
    },
    {
      where: {
        id,
        state: 'running',
        [Op.and]: literal(`not exists (select from change_journal where change_id = ${scope.database.escape(id)})`),
      },
      ...inside(scope),
    },
  )
  if (count > 0) await giveClaimsBack(scope, id)
  return count > 0
}
