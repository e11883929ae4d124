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

/** Who a token belongs to, and the token's own id; its last use is noted at most once a minute. */
export async function bearerOf(
  scope: Scope,
  token: string,
): Promise<{ readonly id: string; readonly name: string; readonly tokenId: string } | undefined> {
  const found = await row<{ id: string; name: string; token_id: string; is_stale: boolean }>(
    scope,
    `select administrators.id, administrators.name, api_tokens.id as token_id, coalesce(used_at < now() - interval '1 minute', true) as is_stale
     from api_tokens join administrators on administrators.id = administrator_id where token_hash = $1`,
    [hashOf(token)],
  )
  if (found === undefined) return undefined
  if (found.is_stale) await run(scope, 'update api_tokens set used_at = now() where id = $1', [found.token_id])
  return { id: found.id, name: found.name, tokenId: found.token_id }
}

export const isTokenKnown = async (scope: Scope, id: string) =>
  (await row(scope, 'select id from api_tokens where id = $1', [id])) !== undefined
