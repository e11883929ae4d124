import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { lookUpNames } from '@/drafting'

export const POST = answer('lookUpNames', async ({ body }) => ({
  items: await lookUpNames(
    { database: context().database },
    body['names'] as readonly string[],
    body['addresses'] as readonly string[],
  ),
}))
