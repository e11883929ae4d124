import type { ChangeRecord } from '@/core/views'
import { estateNow } from '@/records/inventory'
import type { Sequelize } from 'sequelize'
import { isReady, isStale, planDifference, type Plan } from '@/core/plan'
import { inTransaction, type Scope } from '@/records'
import { audit } from '@/records/audit'
import {
  atWorkOn,
  claimAgain,
  decideAlone,
  heldBy,
  reviseDraft,
  setRunning,
  wantResume,
  wantStop,
} from '@/records/changes'
import type { Author } from './Author'
import { existing, noteOf } from './drafts'
import { ClaimHeld, NoDraft, NotNow, NotReady, OtherPlan, PlanStale } from './errors'
import { planNow } from './planNow'

type Decision =
  | { readonly plan: Plan; readonly differences: readonly string[] }
  | { readonly refused: NotReady }
  | undefined

/**
 * Carries a draft out: plans it anew, and sets it running where draft and estate are still what the administrator saw. Of two drafts that
 * conflict one is set running; the other's plan is made anew and its maker told what changed.
 *
 * @param seen the digest of the plan that was shown to whoever decides
 * @throws {NoSuchChange | NoDraft | NotReady | PlanStale | OtherPlan}
 */
export async function carryOut(database: Sequelize, id: string, seen: string, author: Author): Promise<ChangeRecord> {
  const title = (await existing({ database }, id)).title
  const decision = await inTransaction(database, scope => decide(scope, id, seen, author))
  if (decision !== undefined)
    throw 'refused' in decision ? decision.refused : new PlanStale(title, decision.differences)
  return existing({ database }, id)
}

async function decide(scope: Required<Scope>, id: string, seen: string, author: Author): Promise<Decision> {
  await decideAlone(scope)
  const change = await existing(scope, id, true)
  const { kind, intent } = change
  if (change.state !== 'draft' && change.state !== 'checked') throw new NoDraft(change.title, change.state)
  if (change.planDigest !== seen) throw new OtherPlan(change.title, change.editedBy)
  const plan = await planNow(scope, kind, intent, id)
  const held = await inTheWay(scope, plan, id)
  // What was seen ready and no longer is must be shown before anybody is asked again.
  if (isReady(change.plan) && (isStale(change.plan, plan) || held.length > 0)) {
    const found = [
      ...planDifference(change.plan, plan),
      ...held.map(each => `Change ${each.number}, "${each.title}", is at work on it.`),
    ]
    const differences = [...new Set(found)]
    await reviseDraft(scope, id, { kind, intent, plan, differences })
    return { plan, differences }
  }
  if (!isReady(plan)) {
    await reviseDraft(scope, id, { kind, intent, plan })
    const whys = plan.checks.filter(check => !check.holds && check.level === 'must').map(check => check.why)
    return { refused: new NotReady(plan.title, whys) }
  }
  await setRunning(scope, id, plan, await estateNow(scope))
  await audit(scope, noteOf(author, 'change.carried-out', id, { kind, title: plan.title, plan: seen }))
  return undefined
}

/**
 * Changes that are at work on what a plan touches. A system that a plan only reads may be read by others as well, but not taken out of
 * the estate beside it; and one that is to be taken out must have nobody at work on it.
 */
async function inTheWay(scope: Scope, plan: Plan, id: string) {
  const systems = plan.reads.filter(read => read.kind === 'system').map(read => read.id)
  return [...(await heldBy(scope, [...plan.claims, ...systems], id)), ...(await atWorkOn(scope, plan.claims, id))]
}

/** Asks a running change to stop at its next safe point. @throws {NotNow} */
export async function stop({ database }: Scope, id: string, author: Author): Promise<ChangeRecord> {
  return inTransaction(database, async scope => {
    const change = await existing(scope, id)
    if (!(await wantStop(scope, id))) throw new NotNow(change.title, 'stopped', change.state)
    await audit(scope, noteOf(author, 'change.stopped', id, { kind: change.kind, title: change.title }))
    return existing(scope, id)
  })
}

/**
 * Lets a stopped change go on, proves one again that was not proven, or takes back what either has made.
 * @throws {NotNow | ClaimHeld}
 */
export async function resume(
  database: Sequelize,
  id: string,
  isUndoWanted: boolean,
  author: Author,
): Promise<ChangeRecord> {
  return inTransaction(database, async scope => {
    await decideAlone(scope)
    const change = await existing(scope, id, true)
    if (change.state === 'unproven') {
      // It gave its claims back when it ended, so that others could mend what it found.
      const [held] = await heldBy(scope, change.plan.claims, id)
      if (held !== undefined) throw new ClaimHeld(change.title, held.number, held.title)
      await claimAgain(scope, id, change.plan)
    }
    if (!(await wantResume(scope, id, isUndoWanted)))
      throw new NotNow(change.title, isUndoWanted ? 'undone' : 'resumed', change.state)
    const action = isUndoWanted ? 'change.undone' : 'change.resumed'
    await audit(scope, noteOf(author, action, id, { kind: change.kind, title: change.title }))
    return existing(scope, id)
  })
}
