import type { Asked } from '@/app/server/answer'
import { readIntent } from '@/changes'
import { shownPlan, type ChangeState } from '@/core/plan'
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
import { shownChange, type ChangeRecord } from '@/core/views'

const authorOf = ({ who, address }: Asked): Author => ({ name: who.name, address })

/** Of a large cluster, what only the server looks at would be most of each answer while it is drafted. */
const shown = async (change: Promise<ChangeRecord>) => shownChange(await change)

/** Changes, from the first plan to the proof. */
export const changeHandlers = {
  async planChange({ body, scope }: Asked) {
    const kind = String(body['kind'])
    return shownPlan(await planNow(scope, kind, readIntent(kind, body['intent'])))
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
    shown(makeDraft(asked.scope, String(asked.body['kind']), asked.body['intent'], authorOf(asked))),
  async readChange({ scope, id }: Asked) {
    const change = await existing(scope, id)
    return {
      change: { ...change, plan: { ...shownPlan(change.plan), ...change.plan } },
      journal: await journalOf(scope, id),
      evidence: await evidenceOf(scope, id),
    }
  },
  alterDraft: (asked: Asked) =>
    shown(alterDraft(asked.scope, asked.id, asked.body['intent'], Number(asked.body['edit']), authorOf(asked))),
  discardDraft: (asked: Asked) => dropDraft(asked.scope, asked.id, authorOf(asked)),
  carryOut: (asked: Asked) =>
    shown(carryOut(asked.database, asked.id, String(asked.body['planDigest']), authorOf(asked))),
  stopChange: (asked: Asked) => shown(stop(asked.scope, asked.id, authorOf(asked))),
  resumeChange: (asked: Asked) => shown(resume(asked.database, asked.id, false, authorOf(asked))),
  undoChange: (asked: Asked) => shown(resume(asked.database, asked.id, true, authorOf(asked))),
  reverseChange: (asked: Asked) => shown(draftReverse(asked, asked.id, authorOf(asked))),
}
