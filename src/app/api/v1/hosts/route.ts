import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { hosts } from '@/records/queries'

export const GET = answer('listHosts', async () => ({ items: await hosts({ database: context().database }) }))
