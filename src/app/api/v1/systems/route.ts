import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { systems } from '@/records/queries'

export const GET = answer('listSystems', async () => ({ items: await systems({ database: context().database }) }))
