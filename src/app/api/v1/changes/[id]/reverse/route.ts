import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { draftReverse } from '@/drafting'

export const POST = answer('reverseChange', async ({ id, who }) => draftReverse(context(), id, who.name), 201)
