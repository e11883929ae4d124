import { createHash } from 'node:crypto'
import type { AuditEntry } from '@/core/views'
import { Op, type WhereOptions } from 'sequelize'
import { row, run, type Scope } from '../database'
import { inside, kept, modelFor } from '../model'

/** What is noted of an act; the words of `action` are `<what>.<verb>`, such as `change.carried-out`. */
export interface Act {
  readonly who: string
  /** Where it came from; null for what Wendrel does by itself. */
  readonly address: string | null
  readonly action: string
  readonly subject: string
  readonly detail?: Readonly<Record<string, string | number | boolean>>
}

const auditLock = 7_261_558
/** What the first entry's hash is chained to. */
export const noEntryYet = '0'.repeat(64)

/** SHA-256 over the entry's fields as a JSON list, the hash before it first: what an export is checked with. */
export const hashOf = (entry: Omit<AuditEntry, 'hash'>) =>
  createHash('sha256')
    .update(
      JSON.stringify([
        entry.previousHash,
        entry.id,
        entry.at,
        entry.who,
        entry.address,
        entry.action,
        entry.subject,
        entry.detail,
      ]),
    )
    .digest('hex')

/** Adds an act to the record. In the transaction of what it tells, so that neither stands without the other. */
export async function audit(scope: Required<Scope>, act: Act): Promise<void> {
  await run(scope, 'select pg_advisory_xact_lock($1)', [auditLock])
  const last = await row<{ readonly id: string; readonly hash: string }>(
    scope,
    'select id::text, hash from audit order by audit.id desc limit 1',
  )
  const entry = {
    id: Number(last?.id ?? 0) + 1,
    at: new Date().toISOString(),
    who: act.who,
    address: act.address,
    action: act.action,
    subject: act.subject,
    detail: JSON.stringify(act.detail ?? {}),
    previousHash: last?.hash ?? noEntryYet,
  }
  await model(scope.database).create(
    { ...entry, id: `${entry.id}`, at: new Date(entry.at), hash: hashOf(entry) },
    inside(scope),
  )
}

/** Entries with a lower number than `before`, newest first. */
export const auditEntries = (scope: Scope, before: number, limit: number): Promise<AuditEntry[]> =>
  entries(scope, { id: { [Op.lt]: before } }, 'DESC', limit)

/** Entries with a higher number than `after`, oldest first, as an export reads them. */
export const auditAfter = (scope: Scope, after: number, limit: number): Promise<AuditEntry[]> =>
  entries(scope, { id: { [Op.gt]: after } }, 'ASC', limit)

/** The number of the first entry that does not follow from the one before it; undefined where the whole record holds. */
export async function firstBrokenEntry(scope: Scope): Promise<number | undefined> {
  let previous = noEntryYet
  let last = 0
  for (;;) {
    const entries = await auditAfter(scope, last, 1000)
    for (const entry of entries) {
      const { hash, ...rest } = entry
      if (entry.id !== last + 1 || entry.previousHash !== previous || hash !== hashOf(rest)) return entry.id
      previous = hash
      last = entry.id
    }
    if (entries.length === 0) return undefined
  }
}

/** Whether somebody has done something to a subject within the last seconds: what is typed in one go is noted once. */
export async function isNotedLately(scope: Scope, act: Pick<Act, 'who' | 'action' | 'subject'>, seconds: number) {
  const found = await row(
    scope,
    'select id from audit where subject = $1 and action = $2 and who = $3 and at > now() - make_interval(secs => $4) limit 1',
    [act.subject, act.action, act.who, seconds],
  )
  return found !== undefined
}

/** A row as the table has it: the number of an entry may pass what JavaScript counts exactly. */
interface AuditRow extends Omit<AuditEntry, 'id' | 'at'> {
  readonly id: string
  readonly at: Date
}

const model = modelFor<AuditRow>('audit', {
  id: { ...kept.number, primaryKey: true },
  at: kept.instant,
  who: kept.text,
  address: kept.maybeText,
  action: kept.text,
  subject: kept.text,
  detail: kept.text,
  previousHash: kept.text,
  hash: kept.text,
})

async function entries(
  scope: Scope,
  where: WhereOptions<AuditRow>,
  direction: 'ASC' | 'DESC',
  limit: number,
): Promise<AuditEntry[]> {
  const found = await model(scope.database).findAll({ where, order: [['id', direction]], limit, ...inside(scope) })
  return found.map(each => {
    const { id, at, ...rest } = each.get({ plain: true })
    return { ...rest, id: Number(id), at: at.toISOString() }
  })
}
