import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { carryOut } from '@/drafting'

export const POST = answer('carryOut', async ({ id }) => carryOut(context().database, id), 202)
