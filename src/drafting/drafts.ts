import type { ChangeRecord } from '@/core/views'
import { kindNamed, readIntent } from '@/changes'
import { isUuid } from '@/core/input'
import { inTransaction, type Scope } from '@/records'
import { audit, isNotedLately } from '@/records/audit'
import { changeById, changeWith, discardDraft, draftHead, insertDraft, reviseDraft } from '@/records/changes'
import type { Sequelize } from 'sequelize'
import type { Author } from './Author'
import { EditedElsewhere, NoDraft, NoSuchChange, NotNow } from './errors'
import { planNow } from './planNow'

/** Edits of one draft by one person within this time are noted once. */
const noteSeconds = 60

/** Makes a draft with its plan. @throws {IntentRefused | UnknownKind} */
export async function makeDraft(
  { database }: Scope,
  kind: string,
  intent: unknown,
  author: Author,
  reverses?: string,
): Promise<ChangeRecord> {
  const read = readIntent(kind, intent)
  return inTransaction(database, async scope => {
    const plan = await planNow(scope, kind, read)
    const draft = { kind, intent: read, plan, madeBy: author.name, ...(reverses === undefined ? {} : { reverses }) }
    const id = await insertDraft(scope, draft)
    await audit(scope, noteOf(author, 'change.drafted', id, { kind, title: plan.title }))
    return existing(scope, id)
  })
}

/**
 * Gives a draft another intent; effects are computed from the estate as it is now.
 * @param edit the edit that this one rests on: where somebody else has altered the draft meanwhile, it is left as it is
 * @throws {NoDraft | NoSuchChange | IntentRefused | EditedElsewhere}
 */
export async function alterDraft(
  { database }: Scope,
  id: string,
  intent: unknown,
  edit: number,
  author: Author,
): Promise<ChangeRecord> {
  return inTransaction(database, async scope => {
    const change = isUuid(id) ? await draftHead(scope, id) : undefined
    if (change === undefined) throw new NoSuchChange(id)
    if (change.state !== 'draft' && change.state !== 'checked') throw new NoDraft(change.title, change.state)
    if (change.edit !== edit) throw new EditedElsewhere(change.title, change.editedBy)
    const read = readIntent(change.kind, intent)
    const plan = await planNow(scope, change.kind, read, id)
    await reviseDraft(scope, id, { kind: change.kind, intent: read, plan, by: { name: author.name, edit } })
    const note = noteOf(author, 'change.altered', id, { kind: change.kind, title: plan.title })
    if (!(await isNotedLately(scope, note, noteSeconds))) await audit(scope, note)
    const altered = await changeWith(scope, id, { intent: read, plan })
    if (altered === undefined) throw new NoSuchChange(id)
    return altered
  })
}

/** Forgets a draft. @throws {NoDraft | NoSuchChange} */
export async function dropDraft({ database }: Scope, id: string, author: Author): Promise<void> {
  await inTransaction(database, async scope => {
    const change = await existing(scope, id, true)
    if (!(await discardDraft(scope, id))) throw new NoDraft(change.title, change.state)
    await audit(scope, noteOf(author, 'change.discarded', id, { kind: change.kind, title: change.title }))
  })
}

/** Drafts the change that would reverse a proven one. @throws {NotNow} where there is none */
export async function draftReverse({ database }: { readonly database: Sequelize }, id: string, author: Author) {
  const change = await existing({ database }, id)
  const reverse = kindNamed(change.kind).reverse(change.intent, change.facts as Readonly<Record<string, string>>)
  if (change.state !== 'proven' || reverse === undefined) throw new NotNow(change.title, 'reversed', change.state)
  return makeDraft({ database }, reverse.kind, reverse.intent, author, id)
}

/** @param lock keeps others from altering it until the transaction ends @throws {NoSuchChange} */
export async function existing(scope: Scope, id: string, lock = false): Promise<ChangeRecord> {
  const change = isUuid(id) ? await changeById(scope, id, lock) : undefined
  if (change === undefined) throw new NoSuchChange(id)
  return change
}

/** An act upon a change, as the record keeps it. */
export const noteOf = (
  { name, address }: Author,
  action: string,
  id: string,
  detail: Readonly<Record<string, string | number>>,
) => ({ who: name, address, action, subject: `change ${id}`, detail })
