import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { probeRow } from '@/drafting'

export const POST = answer(
  'probePaths',
  ({ id, request }) => probeRow({ database: context().database }, id, request.signal),
  201,
)
