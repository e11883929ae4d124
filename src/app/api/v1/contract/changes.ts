import { changeStates } from '@/core/plan'
import { kinds } from '@/changes'
import { idSchema } from '@/core/estate'
import { draftBytes, type Operation } from './Operation'
import { digest, instant, list, many, object, text, whole } from './shapes'

const intents = { oneOf: kinds.map(kind => object({ kind: { const: kind.kind }, intent: kind.intentSchema })) }
const plan = {
  type: 'object',
  required: ['title', 'checks', 'effects', 'steps', 'forecast', 'undo'],
  properties: {
    title: text(500),
    checks: list({ type: 'object' }),
    effects: list({ type: 'object' }),
    steps: list({ type: 'object' }),
    forecast: { type: 'object' },
    undo: { type: 'object' },
    revisions: {
      ...text(),
      description: 'The revisions of all that it rests on, in its order, where those objects are not told.',
    },
    reads: {
      ...list({ type: 'object' }),
      description: 'Objects that it rests on, with their revisions. Only where a change is followed by its id.',
    },
    claims: {
      ...list(text()),
      description: 'What no other change may touch while it runs. Only where a change is followed by its id.',
    },
  },
}
const change = {
  type: 'object',
  required: [
    'id',
    'number',
    'kind',
    'state',
    'title',
    'intent',
    'plan',
    'planDigest',
    'edit',
    'editedBy',
    'differences',
    'madeBy',
    'madeAt',
  ],
  properties: {
    id: idSchema,
    number: { type: 'integer' },
    kind: text(),
    state: { enum: changeStates },
    title: text(500),
    intent: { type: 'object' },
    plan,
    differences: list(text(1000)),
    planDigest: digest,
    edit: { type: 'integer', minimum: 1 },
    editedBy: text(),
    madeBy: text(),
    madeAt: { type: 'string' },
    carriedOutAt: instant,
    carriedOutEstateAt: instant,
    endedAt: instant,
    endedEstateAt: instant,
    tookSeconds: { type: ['number', 'null'] },
    facts: { type: 'object' },
    refusal: { type: ['object', 'null'] },
    stands: { type: ['string', 'null'] },
  },
}
const followed = {
  type: 'object',
  required: ['change', 'journal', 'evidence'],
  properties: {
    change,
    journal: list({ type: 'object' }),
    evidence: list(
      object({
        claim: text(1000),
        holds: { type: 'boolean' },
        measured: { type: 'object' },
        at: { type: 'string' },
        attempt: whole,
      }),
    ),
  },
}
/** The way of a change. */
export const changesOperations = {
  planChange: {
    method: 'post',
    path: '/plans',
    summary: 'Plan an intent without keeping it',
    body: intents,
    bodyBytes: draftBytes,
    right: 'read',
    answers: plan,
  },
  listChanges: {
    method: 'get',
    path: '/changes',
    summary: 'The latest changes',
    query: { state: { enum: changeStates }, before: whole, limit: { type: 'integer', minimum: 1, maximum: 200 } },
    answers: many(change),
  },
  draftChange: {
    method: 'post',
    path: '/changes',
    summary: 'Draft a change',
    body: intents,
    bodyBytes: draftBytes,
    answers: change,
    status: 201,
  },
  readChange: {
    method: 'get',
    path: '/changes/{id}',
    summary: 'Follow a change: its plan, journal and evidence',
    answers: followed,
  },
  alterDraft: {
    method: 'put',
    path: '/changes/{id}',
    summary: 'Give a draft another intent; refused where it is no longer the edit that this one rests on',
    body: object({ intent: { type: 'object' }, edit: { type: 'integer', minimum: 1, maximum: 2_147_483_647 } }),
    bodyBytes: draftBytes,
    answers: change,
  },
  discardDraft: { method: 'delete', path: '/changes/{id}', summary: 'Discard a draft', status: 204 },
  carryOut: {
    method: 'post',
    path: '/changes/{id}/carry-out',
    summary: 'Carry a checked draft out, as it was seen: the digest names its plan, and another plan is refused',
    body: object({ planDigest: digest }),
    answers: change,
    status: 202,
  },
  stopChange: {
    method: 'post',
    path: '/changes/{id}/stop',
    summary: 'Stop a running change at its next safe point',
    answers: change,
    status: 202,
  },
  resumeChange: {
    method: 'post',
    path: '/changes/{id}/resume',
    summary: 'Let a stopped change go on, or prove again one that was not proven',
    answers: change,
    status: 202,
  },
  undoChange: {
    method: 'post',
    path: '/changes/{id}/undo',
    summary: 'Take back what a stopped or unproven change has made',
    answers: change,
    status: 202,
  },
  reverseChange: {
    method: 'post',
    path: '/changes/{id}/reverse',
    summary: 'Draft the change that reverses a proven one',
    answers: change,
    status: 201,
  },
} as const satisfies Readonly<Record<string, Operation>>
