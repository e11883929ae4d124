import type { Asked } from '@/app/server/answer'
import { readIntent } from '@/changes'
import type { ChangeState } from '@/core/plan'
import {
  alterDraft,
  carryOut,
  draftReverse,
  dropDraft,
  existing,
  makeDraft,
  planNow,
  resume,
  stop,
  type Author,
} from '@/drafting'
import { evidenceOf, journalOf, latestChanges } from '@/records/changes'

const authorOf = ({ who, address }: Asked): Author => ({ name: who.name, address })

/** Changes, from the first plan to the proof. */
export const changeHandlers = {
  planChange({ body, scope }: Asked) {
    const kind = String(body['kind'])
    return planNow(scope, kind, readIntent(kind, body['intent']))
  },
  async listChanges({ scope, query }: Asked) {
    const { state, before, limit } = query
    const options = {
      ...(before === undefined ? {} : { before: Number(before) }),
      ...(state === undefined ? {} : { states: [state as ChangeState] }), // one of them, by the contract
    }
    return { items: await latestChanges(scope, Number(limit ?? 50), options) }
  },
  draftChange: (asked: Asked) =>
    makeDraft(asked.scope, String(asked.body['kind']), asked.body['intent'], authorOf(asked)),
  async readChange({ scope, id }: Asked) {
    return {
      change: await existing(scope, id),
      journal: await journalOf(scope, id),
      evidence: await evidenceOf(scope, id),
    }
  },
  alterDraft: (asked: Asked) =>
    alterDraft(asked.scope, asked.id, asked.body['intent'], Number(asked.body['edit']), authorOf(asked)),
  discardDraft: (asked: Asked) => dropDraft(asked.scope, asked.id, authorOf(asked)),
  carryOut: (asked: Asked) => carryOut(asked.database, asked.id, String(asked.body['planDigest']), authorOf(asked)),
  stopChange: (asked: Asked) => stop(asked.scope, asked.id, authorOf(asked)),
  resumeChange: (asked: Asked) => resume(asked.database, asked.id, false, authorOf(asked)),
  undoChange: (asked: Asked) => resume(asked.database, asked.id, true, authorOf(asked)),
  reverseChange: (asked: Asked) => draftReverse(asked, asked.id, authorOf(asked)),
}
