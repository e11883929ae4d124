import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { resume } from '@/drafting'

export const POST = answer('resumeChange', async ({ id }) => resume(context().database, id, false), 202)
