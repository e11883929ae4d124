import { kindOf, type KindName, type Settled } from '@/core/estate'
import type { Drifted } from '@/core/findings'
import { rows, run, type Scope } from '../database'
import { columnOf, columnsOf, tableOf } from '../objects'

/** The column of a field that a kind has: what comes from elsewhere never stands in a statement. @throws where it has none */
function column(kind: KindName, field: string): string {
  const known = columnsOf(kindOf(kind)).find(each => each.field === field)
  if (known === undefined) throw new Error(`${kind} have no ${field}.`)
  return `"${columnOf(known.field)}"`
}

/** Keeps what a change has set, as the records have it now: after its proof, when its systems have been read. */
export async function keepSettled(
  scope: Scope,
  changeId: string,
  settled: readonly Settled[],
  at: Date,
): Promise<void> {
  for (const { kind, of, fields } of settled)
    for (const field of fields)
      await run(
        scope,
        `insert into settled (object_id, field, kind, value, change_id, at)
         select id, $1, $2, coalesce(to_jsonb(${column(kind, field)}), 'null'), $3, $4 from ${tableOf(kind)}
         where ${'id' in of ? 'id = $5' : 'system_id = $5 and locator = $6'}
         on conflict (object_id, field) do update set value = excluded.value, change_id = excluded.change_id, at = excluded.at`,
        [field, kind, changeId, at, ...('id' in of ? [of.id] : [of.systemId, of.locator])],
      )
}

/** Of what a change has not come to its end with, or has been taken back, nobody knows how it should be. */
export async function forgetSettled(scope: Scope, settled: readonly Settled[]): Promise<void> {
  for (const { kind, of, fields } of settled)
    await run(
      scope,
      `delete from settled where field = any($1) and object_id in
       (select id from ${tableOf(kind)} where ${'id' in of ? 'id = $2' : 'system_id = $2 and locator = $3'})`,
      [[...fields], ...('id' in of ? [of.id] : [of.systemId, of.locator])],
    )
}

/** What a system states otherwise than the change that has set it; what a change is at work on is left alone. */
export async function drifted(scope: Scope, systemId: string): Promise<Drifted[]> {
  const pairs = await rows<{ readonly kind: KindName; readonly field: string }>(
    scope,
    'select distinct kind, field from settled',
  )
  const found: Drifted[] = []
  for (const { kind, field } of pairs)
    found.push(
      ...(await rows<Drifted>(
        scope,
        `select settled.object_id as "objectId", settled.kind, settled.field, now.name, settled.value as "was",
           to_jsonb(now.${column(kind, field)}) as "is", settled.at, changes.id as "changeId", changes.title,
           changes.kind as "changeKind", changes.intent
         from settled join ${tableOf(kind)} now on now.id = settled.object_id join changes on changes.id = settled.change_id
         where settled.kind = $1 and settled.field = $2 and now.system_id = $3 and now.missing_since is null
           and coalesce(to_jsonb(now.${column(kind, field)}), 'null') is distinct from settled.value
           and not exists (select from claims where claim = settled.object_id::text)
         order by now.name, settled.object_id limit 200`,
        [kind, field, systemId],
      )),
    )
  return found
}
