import { fieldsOf, kindOf, type Directory, type Principal } from '@/core/estate'
import { v7 as uuid } from 'uuid'
import { row, rows, run, toJson, type Scope } from '../database'
import { columnOf, columnTypes, object } from '../objects'
import { openSecret } from '../secrets'

/** A directory with the password by which it is read; undefined where it is gone. */
export async function directoryById(
  scope: Scope,
  key: Buffer,
  id: string,
): Promise<{ readonly directory: Directory; readonly password: string } | undefined> {
  const directory = await object(scope, 'directories', id)
  if (directory === undefined) return undefined
  const kept = await row<{ readonly secret_id: string | null }>(
    scope,
    'select secret_id from directories where id = $1',
    [id],
  )
  const password = kept?.secret_id == null ? '' : await openSecret(scope, key, kept.secret_id, 'directory')
  return { directory, password }
}

/** Directories that were not read for so long (seconds). */
export const directoriesDue = async (scope: Scope, seconds: number): Promise<string[]> =>
  (
    await rows<{ readonly id: string }>(
      scope,
      `select id from directories where read_at is null or read_at < now() - make_interval(secs => $1) order by read_at nulls first`,
      [seconds],
    )
  ).map(({ id }) => id)

/** What a reading fills of a person or a group. */
const filled = fieldsOf(kindOf('principals'))
  .filter(({ field }) => !['id', 'directoryId', 'durableId', 'goneSince', 'revision'].includes(field))
  .map(({ field, type }) => ({ field, column: columnOf(field), type: columnTypes[type] }))
const names = filled.map(({ column }) => column)
const of = (row: string) => `(${names.map(name => `${row}.${name}`).join(', ')})`
const rowsAtOnce = 2000

/**
 * Takes over everybody whom a directory has: known by their durable ids, and who is as before is not written. Whom it no longer has is
 * gone since now, and stays. Written by hand: one statement for many, since a directory may have a million.
 * @returns how many were written
 */
export async function storePrincipals(
  scope: Required<Scope>,
  directoryId: string,
  seen: readonly Omit<Principal, 'id' | 'directoryId' | 'goneSince' | 'revision'>[],
): Promise<number> {
  let written = 0
  for (let from = 0; from < seen.length; from += rowsAtOnce) {
    const given = seen.slice(from, from + rowsAtOnce).map(each => ({
      id: uuid(),
      durable_id: each.durableId,
      ...Object.fromEntries(filled.map(({ field, column }) => [column, each[field as keyof typeof each]])),
    }))
    const stored = await row<{ readonly count: number }>(
      scope,
      `with given as (
         select * from jsonb_to_recordset($2::jsonb) as r(id uuid, durable_id text, ${filled.map(({ column, type }) => `${column} ${type}`).join(', ')})),
       changed as (
         select given.* from given left join principals known on known.directory_id = $1 and known.durable_id = given.durable_id
         where known.id is null or known.gone_since is not null or ${of('known')} is distinct from ${of('given')}),
       stored as (
         insert into principals (id, directory_id, durable_id, ${names.join(', ')})
         select id, $1, durable_id, ${names.join(', ')} from changed
         on conflict (directory_id, durable_id) do update set gone_since = null, ${names.map(name => `${name} = excluded.${name}`).join(', ')}
         returning 1)
       select count(*)::int as count from stored`,
      [directoryId, toJson(given)],
    )
    written += stored?.count ?? 0
  }
  const gone = await rows(
    scope,
    `update principals set gone_since = now() where directory_id = $1 and gone_since is null and durable_id <> all($2) returning 1`,
    [directoryId, seen.map(({ durableId }) => durableId)],
  )
  return written + gone.length
}

/** Notes how reading a directory went. */
export const noteDirectory = (
  scope: Scope,
  id: string,
  went:
    | { readonly people: number; readonly groups: number; readonly certificateEndsAt: Date | null }
    | { readonly why: string },
): Promise<void> =>
  'why' in went
    ? run(
        scope,
        `update directories set state = 'not answering', state_why = $2
         where id = $1 and (state, state_why) is distinct from ('not answering', $2)`,
        [id, went.why],
      )
    : run(
        scope,
        `update directories set state = 'answering', state_why = null, read_at = now(), person_count = $2, group_count = $3,
           certificate_ends_at = $4 where id = $1`,
        [id, went.people, went.groups, went.certificateEndsAt?.toISOString() ?? null],
      )
