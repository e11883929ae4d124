import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { pools } from '@/records/queries'

export const GET = answer('listPools', async () => ({ items: await pools({ database: context().database }) }))
