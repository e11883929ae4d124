import { pass, type Asked } from '../../testing/browser'
import { sampleCheck, samplePlan } from '../../testing/samplePlan'
import type { ShownPlan } from '@/core/plan'
import type { ShownChange } from '@/core/views'
import { Field } from '../../parts/Field'
import { DraftFrame } from '../DraftFrame'
import { useDraft } from '../useDraft'

/** A form of one name that is planned while it is filled in. */
export function Form({ kept }: { readonly kept?: ShownChange }) {
  const draft = useDraft('name-it', { name: '', size: 4 }, kept)
  return (
    <DraftFrame title="Name it" draft={draft}>
      <Field label="Name" error={draft.errorOf('name')}>
        {props => (
          <input {...props} value={draft.intent.name} onChange={event => draft.set({ name: event.target.value })} />
        )}
      </Field>
      <button type="button" onClick={draft.planAgain}>
        Plan again
      </button>
    </DraftFrame>
  )
}

export const nameOf = ({ body }: Asked) => (body as { intent: { name: string } }).intent.name
export const planFor = (name: string): ShownPlan =>
  samplePlan({
    checks: [
      sampleCheck({
        rule: 'name',
        holds: name !== '',
        why: name === '' ? 'Give it a name.' : `${name} is free.`,
        field: 'name',
      }),
    ],
  })
let edits = 0
/** The edit that the API answered last. */
export const lastEdit = () => edits
export const draftOf = (name: string, edit: number, more: object = {}) =>
  ({
    id: 'c1',
    intent: { name, size: 4 },
    plan: planFor(name),
    planDigest: `digest of ${name}`,
    edit,
    editedBy: 'tester',
    differences: [],
    ...more,
  }) as unknown as ShownChange
/** An API that keeps drafts: what is posted is change c1. */
export const keeping = (asked: Asked) => {
  if (asked.path === '/api/v1/plans') return { body: planFor(nameOf(asked)) }
  if (asked.method === 'DELETE') return { status: 204 }
  if (asked.path.endsWith('/carry-out')) return { body: {} }
  return { body: draftOf(nameOf(asked), ++edits) }
}
export const settled = () => pass(160)
