import type { ChangeRecord } from '@/core/views'
import type { Sequelize } from 'sequelize'
import { isReady, isStale, planDifference, type Plan } from '@/core/plan'
import { inTransaction, type Scope } from '@/records'
import { changeById, decideAlone, heldBy, reviseDraft, setRunning, wantResume, wantStop } from '@/records/changes'
import { existing } from './drafts'
import { NoDraft, NoSuchChange, NotNow, NotReady, PlanStale } from './errors'
import { estateNow, planNow } from './planNow'

type Decision =
  { readonly plan: Plan; readonly differences: readonly string[] } | { readonly refused: NotReady } | undefined

/**
 * Carries a draft out: plans it anew, and sets it running where the estate is still what the administrator saw. Of two drafts that
 * conflict one is set running; the other's plan is made anew and its maker told what changed.
 * @throws {NoSuchChange | NoDraft | NotReady | PlanStale}
 */
export async function carryOut(database: Sequelize, id: string): Promise<ChangeRecord> {
  const title = (await existing({ database }, id)).title
  const decision = await inTransaction(database, scope => decide(scope, id))
  if (decision !== undefined)
    throw 'refused' in decision ? decision.refused : new PlanStale(title, decision.differences)
  return existing({ database }, id)
}

async function decide(scope: Required<Scope>, id: string): Promise<Decision> {
  await decideAlone(scope)
  const change = await changeById(scope, id, true)
  if (change === undefined) throw new NoSuchChange(id)
  if (change.state !== 'draft' && change.state !== 'checked') throw new NoDraft(change.title, change.state)
  const plan = await planNow(scope, change.kind, change.intent, id)
  const held = await heldBy(scope, plan.claims, id)
  // What was seen ready and no longer is must be shown before anybody is asked again.
  if (isReady(change.plan) && (isStale(change.plan, plan) || held.length > 0)) {
    const differences = [
      ...planDifference(change.plan, plan),
      ...held.map(each => `Change ${each.number}, "${each.title}", is at work on it.`),
    ]
    await reviseDraft(scope, id, change.intent, plan, [...new Set(differences)])
    return { plan, differences: [...new Set(differences)] }
  }
  if (!isReady(plan)) {
    await reviseDraft(scope, id, change.intent, plan)
    return {
      refused: new NotReady(
        plan.title,
        plan.checks.filter(check => !check.holds && check.level === 'must').map(check => check.why),
      ),
    }
  }
  await setRunning(scope, id, plan, await estateNow(scope))
  return undefined
}

/** Asks a running change to stop at its next safe point. @throws {NotNow} */
export async function stop(scope: Scope, id: string): Promise<ChangeRecord> {
  const change = await existing(scope, id)
  if (!(await wantStop(scope, id))) throw new NotNow(change.title, 'stopped', change.state)
  return existing(scope, id)
}

/** Lets a stopped change go on, or takes back what it has made. @throws {NotNow} */
export async function resume(database: Sequelize, id: string, isUndoWanted: boolean): Promise<ChangeRecord> {
  const change = await existing({ database }, id)
  const isResumed = await inTransaction(database, scope => wantResume(scope, id, isUndoWanted))
  if (!isResumed) throw new NotNow(change.title, isUndoWanted ? 'undone' : 'resumed', change.state)
  return existing({ database }, id)
}
