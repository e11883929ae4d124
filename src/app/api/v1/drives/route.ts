import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { drives } from '@/records/queries'

export const GET = answer('listDrives', async ({ query }) => ({
  items: await drives({ database: context().database }, query.get('systemId')),
}))
