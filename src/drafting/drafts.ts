import type { ChangeRecord } from '@/core/views'
import { kindNamed, readIntent } from '@/changes'
import { inTransaction, type Scope } from '@/records'
import { changeById, discardDraft, insertDraft, reviseDraft } from '@/records/changes'
import { NoDraft, NoSuchChange, NotNow } from './errors'
import { planNow } from './planNow'

/** Makes a draft with its plan. @throws {IntentRefused | UnknownKind} */
export async function makeDraft(
  scope: Scope,
  kind: string,
  intent: unknown,
  madeBy: string,
  reverses?: string,
): Promise<ChangeRecord> {
  const read = readIntent(kind, intent)
  const plan = await planNow(scope, kind, read)
  const id = await insertDraft(scope, {
    kind,
    intent: read,
    plan,
    madeBy,
    ...(reverses === undefined ? {} : { reverses }),
  })
  return existing(scope, id)
}

/** Gives a draft another intent; effects are computed from the estate as it is now. @throws {NoDraft | NoSuchChange | IntentRefused} */
export async function alterDraft(scope: Scope, id: string, intent: unknown): Promise<ChangeRecord> {
  const change = await existing(scope, id)
  const read = readIntent(change.kind, intent)
  const plan = await planNow(scope, change.kind, read, id)
  if (!(await reviseDraft(scope, id, read, plan))) throw new NoDraft(change.title, change.state)
  return existing(scope, id)
}

/** Forgets a draft. @throws {NoDraft | NoSuchChange} */
export async function dropDraft(scope: Scope, id: string): Promise<void> {
  const change = await existing(scope, id)
  if (!(await discardDraft(scope, id))) throw new NoDraft(change.title, change.state)
}

/** Drafts the change that would reverse a proven one. @throws {NotNow} where there is none */
export async function draftReverse(
  scope: Required<Pick<Scope, 'database'>>,
  id: string,
  madeBy: string,
): Promise<ChangeRecord> {
  return inTransaction(scope.database, async inside => {
    const change = await existing(inside, id)
    const reverse = kindNamed(change.kind).reverse(change.intent, change.facts as Readonly<Record<string, string>>)
    if (change.state !== 'proven' || reverse === undefined) throw new NotNow(change.title, 'reversed', change.state)
    return makeDraft(inside, reverse.kind, reverse.intent, madeBy, id)
  })
}

/** @throws {NoSuchChange} */
export async function existing(scope: Scope, id: string): Promise<ChangeRecord> {
  const change = /^[0-9a-f-]{36}$/.test(id) ? await changeById(scope, id) : undefined
  if (change === undefined) throw new NoSuchChange(id)
  return change
}
