import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { hostGroups } from '@/records/queries'

export const GET = answer('listHostGroups', async () => ({ items: await hostGroups({ database: context().database }) }))
