'use client'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { countWords, formatBytes } from '@/core/units'
import { draftAddress } from '@/core/intents'
import type { ChangeRecord, DriveLine } from '@/core/views'
import { ask } from '../../api'
import { Refusal } from '../../parts/Refusal'
import { bulkDrafts, type BulkDraft, type IntakeSystem } from './bulkDrafts'

interface BulkBarProps {
  readonly drives: readonly DriveLine[]
  readonly systems: readonly IntakeSystem[]
}

/** What several drives are together, and the drafts that can begin with them. */
export function BulkBar({ drives, systems }: BulkBarProps) {
  const router = useRouter()
  const [isBusy, setBusy] = useState(false)
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const drafts = bulkDrafts(drives, systems)
  const bytes = drives.reduce((sum, drive) => sum + BigInt(drive.capacityBytes), 0n)
  const draft = async ({ drafted, intent }: BulkDraft) => {
    setBusy(true)
    const answer = await ask<ChangeRecord>('POST', '/changes', { kind: drafted.kind, intent })
    setBusy(false)
    if (answer.ok) return router.push(draftAddress(drafted, intent, answer.value.id) ?? '', { scroll: false })
    setRefusal(answer.refusal)
  }
  return (
    <>
      <span role="status" className="ml-auto text-second">
        {countWords(drives.length, 'drive', 'drives')} chosen, {formatBytes(bytes)}
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
    </>
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
