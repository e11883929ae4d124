import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { makeDraft } from '@/drafting'
import { changeStates } from '@/core/plan'
import { latestChanges } from '@/records/changes'

export const GET = answer('listChanges', async ({ query }) => {
  const state = changeStates.find(each => each === query.get('state'))
  const limit = Math.min(200, Math.max(1, Number(query.get('limit') ?? 50) || 50))
  const before = Number(query.get('before') ?? 2_147_483_647) || 2_147_483_647
  return {
    items: await latestChanges({ database: context().database }, limit, {
      before,
      ...(state === undefined ? {} : { states: [state] }),
    }),
  }
})

export const POST = answer(
  'draftChange',
  async ({ body, who }) => makeDraft({ database: context().database }, String(body['kind']), body['intent'], who.name),
  201,
)
