'use client'
import type { ChangeRecord } from '@/core/views'
import { DraftFrame } from '../drafts/DraftFrame'
import { useDraft } from '../drafts/useDraft'
import { Field } from '../parts/Field'

/** Letting a finding stand: why, and until which day. */
export function SignException({
  findingKey,
  title,
  kept,
}: {
  readonly findingKey: string
  readonly title: string
  readonly kept?: ChangeRecord | undefined
}) {
  const draft = useDraft('sign-exception', { findingKey, findingTitle: title, reason: '', until: '' }, kept)
  return (
    <DraftFrame title={`Let stand: ${title}`} draft={draft} verb="Sign">
      <Field
        label="Why it may stand"
        hint="At least ten characters; whoever reads it later should understand."
        error={draft.errorOf('reason')}
      >
        {props => (
          <textarea
            {...props}
            className="field h-auto"
            rows={3}
            maxLength={1000}
            value={draft.intent.reason}
            onChange={event => draft.set({ reason: event.target.value })}
          />
        )}
      </Field>
      <Field label="Until" hint="A year at most; then it calls for work again." error={draft.errorOf('until')}>
        {props => (
          <input
            {...props}
            type="date"
            className="field mono"
            value={draft.intent.until}
            onChange={event => draft.set({ until: event.target.value })}
          />
        )}
      </Field>
    </DraftFrame>
  )
}
