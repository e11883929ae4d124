import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { search } from '@/records/queries'

export const GET = answer('search', async ({ query }) => ({
  items: await search({ database: context().database }, (query.get('text') ?? '').slice(0, 120)),
}))
