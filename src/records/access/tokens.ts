import { createHash, randomBytes } from 'node:crypto'
import { v7 as uuid } from 'uuid'
import { row, type Scope } from '../database'
import { inside, kept, modelFor } from '../model'
import { isStale, noteUse } from './noteUse'

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex')

interface Row {
  readonly id: string
  readonly administratorId: string
  readonly name: string
  readonly tokenHash: string
  readonly madeAt: Date
  readonly usedAt: Date | null
}
const model = modelFor<Row>('api_tokens', {
  id: kept.id,
  administratorId: kept.uuid,
  name: kept.text,
  tokenHash: kept.text,
  madeAt: kept.instant,
  usedAt: kept.instant,
})

/** Makes a bearer token; only its hash is kept, so it can be shown this once only. */
export async function makeToken(scope: Scope, administratorId: string, name: string): Promise<string> {
  const token = `wdl_${randomBytes(32).toString('base64url')}`
  await model(scope.database).create({ id: uuid(), administratorId, name, tokenHash: hashOf(token) }, inside(scope))
  return token
}

export async function tokensOf(
  scope: Scope,
  administratorId: string,
): Promise<{ readonly id: string; readonly name: string; readonly madeAt: string; readonly usedAt: string | null }[]> {
  const found = await model(scope.database).findAll({
    where: { administratorId },
    order: [['madeAt', 'ASC']],
    ...inside(scope),
  })
  return found.map(each => {
    const { id, name, madeAt, usedAt } = each.get({ plain: true })
    return { id, name, madeAt: madeAt.toISOString(), usedAt: usedAt?.toISOString() ?? null }
  })
}

export const revokeToken = async (scope: Scope, administratorId: string, id: string): Promise<boolean> =>
  (await model(scope.database).destroy({ where: { id, administratorId }, ...inside(scope) })) > 0

/** Who a token belongs to, and the token's own id; its last use is noted at most once a minute. */
export async function bearerOf(
  scope: Scope,
  token: string,
): Promise<{ readonly id: string; readonly name: string; readonly tokenId: string } | undefined> {
  const found = await row<{ id: string; name: string; token_id: string; is_stale: boolean }>(
    scope,
    `select administrators.id, administrators.name, api_tokens.id as token_id, ${isStale} as is_stale
     from api_tokens join administrators on administrators.id = administrator_id where token_hash = $1`,
    [hashOf(token)],
  )
  if (found === undefined) return undefined
  if (found.is_stale) await noteUse(scope, 'api_tokens', found.token_id)
  return { id: found.id, name: found.name, tokenId: found.token_id }
}

export const isTokenKnown = async (scope: Scope, id: string) =>
  (await model(scope.database).count({ where: { id }, ...inside(scope) })) > 0
