import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { stop } from '@/drafting'

export const POST = answer('stopChange', async ({ id }) => stop({ database: context().database }, id), 202)
