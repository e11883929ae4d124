import { answer } from '@/app/server/answer'
import { context } from '@/app/server/context'
import { alterDraft, dropDraft, existing } from '@/drafting'
import { evidenceOf, journalOf } from '@/records/changes'

export const GET = answer('readChange', async ({ id }) => {
  const scope = { database: context().database }
  return {
    change: await existing(scope, id),
    journal: await journalOf(scope, id),
    evidence: await evidenceOf(scope, id),
  }
})

export const PUT = answer('alterDraft', async ({ id, body }) =>
  alterDraft({ database: context().database }, id, body['intent']),
)

export const DELETE = answer('discardDraft', async ({ id }) => dropDraft({ database: context().database }, id))
