'use client'
import type { ReactNode } from 'react'
import { Margin } from '../frame/Page'
import { Refusal } from '../parts/Refusal'
import { intentDifferences } from './intentDifferences'
import { PlanView } from './PlanView'
import type { Draft } from './useDraft'

interface DraftFrameProps<Intent> {
  readonly title: string
  readonly draft: Draft<Intent>
  readonly children: ReactNode
  readonly verb?: string
  /** What the plan draws stands on the sheet, not in the margin. */
  readonly isSketchBeside?: boolean
}

/** A draft in the margin: its fields, what they would do, and the foot with which it is carried out. */
export function DraftFrame<Intent>({
  title,
  draft,
  children,
  verb = 'Carry out',
  isSketchBeside = false,
}: DraftFrameProps<Intent>) {
  const foot = (
    <>
      <button
        type="button"
        className="button"
        data-key="carry-out"
        disabled={!draft.isReady || draft.isBusy}
        onClick={() => void draft.carryOut()}
      >
        {draft.isBusy ? 'Carrying out' : verb} <kbd>⇧⏎</kbd>
      </button>
      <button type="button" className="button quiet" onClick={() => void draft.discard()}>
        {draft.isKept ? 'Discard' : 'Close'}
      </button>
      <span className="hint ml-auto">{draft.isKept ? 'kept as a draft' : 'not kept yet'}</span>
    </>
  )
  return (
    <Margin foot={foot}>
      <h2 className="pr-12 break-words">{title}</h2>
      <div className="hint mb-3">Draft. Nothing has been changed yet.</div>
      {draft.foreign !== undefined && (
        <div role="alert" className="refusal">
          <div className="font-semibold">{draft.foreign.editedBy} has altered this draft meanwhile.</div>
          <ul className="m-0 list-disc pl-4">
            {intentDifferences(draft.intent, draft.foreign.intent).map(words => (
              <li key={words} className="break-words">
                {words}
              </li>
            ))}
          </ul>
          <div className="mt-2 flex flex-wrap gap-2">
            <button type="button" className="button quiet" onClick={() => draft.settle('theirs')}>
              Take it as it is there
            </button>
            <button type="button" className="button quiet" onClick={() => draft.settle('mine')}>
              Keep what stands here
            </button>
          </div>
        </div>
      )}
      {draft.differences.length > 0 && (
        <div role="alert" className="refusal">
          <div className="font-semibold">Meanwhile the estate has changed; this is the plan as it is now.</div>
          <ul className="m-0 list-disc pl-4">
            {draft.differences.map(words => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </div>
      )}
      {draft.refusal !== undefined && draft.differences.length === 0 && draft.foreign === undefined && (
        <Refusal refusal={draft.refusal} />
      )}
      {children}
      {draft.plan === undefined ? (
        <div className="mt-4 h-40 rounded-sm bg-rule-fine" aria-label="Computing" />
      ) : (
        <PlanView plan={draft.plan} isSketchBeside={isSketchBeside} />
      )}
    </Margin>
  )
}
