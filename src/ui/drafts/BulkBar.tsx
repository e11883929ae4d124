'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { draftAddress, type IntentKind } from '@/core/intents'
import type { ShownChange } from '@/core/views'
import { ask } from '../api'
import { Refusal } from '../parts/Refusal'

/** A change that can be drafted for several things at once. */
export interface BulkDraft {
  readonly words: string
  readonly drafted: IntentKind
  readonly intent: Readonly<Record<string, unknown>>
}

interface BulkBarProps {
  /** What is chosen, in words. */
  readonly words: string
  /** The drafts that can begin with it; a reason where none can. */
  readonly drafts: readonly BulkDraft[] | string
}

/** What several things are together, and the drafts that can begin with them. */
export function BulkBar({ words, drafts }: BulkBarProps) {
  const router = useRouter()
  const [isBusy, setBusy] = useState(false)
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const draft = async ({ drafted, intent }: BulkDraft) => {
    setBusy(true)
    const answer = await ask<ShownChange>('POST', '/changes', { kind: drafted.kind, intent })
    setBusy(false)
    if (answer.ok) return router.push(draftAddress(drafted, intent, answer.value.id) ?? '', { scroll: false })
    setRefusal(answer.refusal)
  }
  return (
    <div className="ml-auto flex flex-wrap items-center justify-end gap-1.5">
      <span role="status" className="text-second">
        {words}
      </span>
      {typeof drafts === 'string' ? (
        <span className="hint">{drafts}</span>
      ) : (
        drafts.map(each => <DraftButton key={each.drafted.kind} each={each} isBusy={isBusy} draft={draft} />)
      )}
      {refusal !== undefined && (
        <div className="w-full">
          <Refusal refusal={refusal} />
        </div>
      )}
    </div>
  )
}

interface DraftButtonProps {
  readonly each: BulkDraft
  readonly isBusy: boolean
  readonly draft: ({ drafted, intent }: BulkDraft) => Promise<void>
}

const DraftButton = ({ each, isBusy, draft }: DraftButtonProps) => (
  <button type="button" className="button h-7 px-[9px] font-normal" disabled={isBusy} onClick={() => void draft(each)}>
    {each.words}
  </button>
)
