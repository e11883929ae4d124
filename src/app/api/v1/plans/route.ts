import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { readIntent } from '@/changes'
import { planNow } from '@/drafting'

export const POST = answer('planChange', async ({ body }) => {
  const kind = String(body['kind'])
  return planNow({ database: context().database }, kind, readIntent(kind, body['intent']))
})
