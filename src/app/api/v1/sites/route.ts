import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { addSite, sites } from '@/records/queries'

export const GET = answer('listSites', async () => ({ items: await sites({ database: context().database }) }))

export const POST = answer(
  'addSite',
  async ({ body }) => ({ id: await addSite({ database: context().database }, String(body['name']).trim()) }),
  201,
)
