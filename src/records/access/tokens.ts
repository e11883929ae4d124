import { createHash, randomBytes } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { row, rows, run, type Scope } from '../database'

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex')

/** Makes a bearer token; only its hash is kept, so it can be shown this once only. */
export async function makeToken(scope: Scope, administratorId: string, name: string): Promise<string> {
  const token = `wdl_${randomBytes(32).toString('base64url')}`
  await run(scope, 'insert into api_tokens (id, administrator_id, name, token_hash) values ($1, $2, $3, $4)', [
    uuid(),
    administratorId,
    name,
    hashOf(token),
  ])
  return token
}

export async function tokensOf(
  scope: Scope,
  administratorId: string,
): Promise<{ readonly id: string; readonly name: string; readonly madeAt: string; readonly usedAt: string | null }[]> {
  const found = await rows<{ id: string; name: string; made_at: Date; used_at: Date | null }>(
    scope,
    'select id, name, made_at, used_at from api_tokens where administrator_id = $1 order by made_at',
    [administratorId],
  )
  return found.map(each => ({
    id: each.id,
    name: each.name,
    madeAt: each.made_at.toISOString(),
    usedAt: each.used_at?.toISOString() ?? null,
  }))
}

export async function revokeToken(scope: Scope, administratorId: string, id: string): Promise<boolean> {
  return (
    (await row<{ readonly id: string }>(
      scope,
      'delete from api_tokens where id = $1 and administrator_id = $2 returning id',
      [id, administratorId],
    )) !== undefined
  )
}

export async function bearerOf(
  scope: Scope,
  token: string,
): Promise<{ readonly id: string; readonly name: string } | undefined> {
  return row(
    scope,
    `with used as (update api_tokens set used_at = now() where token_hash = $1 returning administrator_id)
     select id, name from administrators where id in (select administrator_id from used)`,
    [hashOf(token)],
  )
}
