import { createHash, timingSafeEqual } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { row, rows, run, type Scope } from '../database'

export interface Administrator {
  readonly id: string
  readonly name: string
  readonly madeAt: string
}

const administratorsLock = 7_261_556

export const administratorCount = async (scope: Scope) =>
  (await row<{ readonly count: number }>(scope, 'select count(*)::int as count from administrators'))?.count ?? 0

export const passwordHashOf = (scope: Scope, name: string) =>
  row<{ readonly id: string; readonly password_hash: string }>(
    scope,
    'select id, password_hash from administrators where name = $1',
    [name],
  )

export async function administrators(scope: Scope): Promise<Administrator[]> {
  const found = await rows<{ id: string; name: string; made_at: Date }>(
    scope,
    'select id, name, made_at from administrators order by name',
  )
  return found.map(({ id, name, made_at }) => ({ id, name, madeAt: made_at.toISOString() }))
}

/** Adds an administrator; undefined where the name is taken. */
export async function addAdministrator(scope: Scope, name: string, passwordHash: string): Promise<string | undefined> {
  const found = await row<{ readonly id: string }>(
    scope,
    'insert into administrators (id, name, password_hash) values ($1, $2, $3) on conflict (name) do nothing returning id',
    [uuid(), name, passwordHash],
  )
  return found?.id
}

/** Adds the first administrator with the code that the start printed; undefined where the code is wrong or there is one already. */
export async function addFirstAdministrator(
  scope: Required<Scope>,
  code: string,
  name: string,
  passwordHash: string,
): Promise<string | undefined> {
  await run(scope, 'select pg_advisory_xact_lock($1)', [administratorsLock])
  const expected = await firstCode(scope)
  if (
    expected === undefined ||
    !isSameText(expected, code.trim().toUpperCase()) ||
    (await administratorCount(scope)) > 0
  )
    return undefined
  const id = await addAdministrator(scope, name, passwordHash)
  await run(scope, `delete from settings where key = 'first-sign-in'`)
  return id
}

/** Compares without telling by the time it takes how much of it is right. */
const isSameText = (one: string, other: string) =>
  timingSafeEqual(createHash('sha256').update(one).digest(), createHash('sha256').update(other).digest())

export const setPasswordHash = (scope: Scope, id: string, passwordHash: string) =>
  run(scope, 'update administrators set password_hash = $2 where id = $1', [id, passwordHash])

/** Removes an administrator and, with it, sessions and tokens; false for the last one or one that is not there. */
export async function removeAdministrator(scope: Required<Scope>, id: string): Promise<boolean> {
  await run(scope, 'select pg_advisory_xact_lock($1)', [administratorsLock])
  if ((await administratorCount(scope)) <= 1) return false
  return (
    (await row<{ readonly id: string }>(scope, 'delete from administrators where id = $1 returning id', [id])) !==
    undefined
  )
}

/** The code that the first sign-in needs; undefined once it has been used. */
export const firstCode = async (scope: Scope) =>
  (
    await row<{ readonly code: string }>(
      scope,
      `select value #>> '{}' as code from settings where key = 'first-sign-in'`,
    )
  )?.code
