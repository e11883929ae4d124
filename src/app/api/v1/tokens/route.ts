import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { makeToken, tokensOf } from '@/records/access'

export const GET = answer('listTokens', async ({ who }) => ({
  items: await tokensOf({ database: context().database }, who.id),
}))

export const POST = answer(
  'makeToken',
  async ({ who, body }) => ({ token: await makeToken({ database: context().database }, who.id, String(body['name'])) }),
  201,
)
