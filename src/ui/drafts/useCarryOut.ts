import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { shownDifference } from '@/core/plan'
import type { ShownChange } from '@/core/views'
import { ask } from '../api'
import type { DraftWriter, Written } from './DraftWriter'

interface Carrying<Intent> {
  readonly writer: () => DraftWriter
  readonly intent: Intent
  /** What is shown: the plan of the latest answer. */
  readonly written: Written | undefined
  /** Says that the form is left for good. */
  readonly leave: () => void
  readonly setWritten: (written: Written) => void
  readonly setDifferences: (differences: readonly string[]) => void
  readonly setRefusal: (refusal: CodedRefusal) => void
  readonly setForeign: (foreign: ShownChange) => void
}

/** Carries out the plan that is shown, and no other: where it is not the one that stands now, what differs is shown instead. */
export function useCarryOut<Intent extends object>(draft: Carrying<Intent>) {
  const { writer, intent, written, leave, setWritten, setDifferences, setRefusal, setForeign } = draft
  const router = useRouter()
  const [isSending, setSending] = useState(false)
  const showAsItIs = async (seen: ShownChange) => {
    const now = await ask<{ change: ShownChange }>('GET', `/changes/${seen.id}`)
    if (!now.ok) return
    const { change } = now.value
    if (change.edit !== seen.edit) return setForeign(change)
    writer().rebase(change)
    setWritten({ of: JSON.stringify(intent), plan: change.plan, change })
    setDifferences(change.differences.length > 0 ? change.differences : shownDifference(seen.plan, change.plan))
  }
  const carryOut = async () => {
    setSending(true)
    await writer().write(intent, true)
    const seen = writer().isWritten(intent) ? writer().change : undefined
    // A plan that was shown before the draft was kept must be the one that was kept.
    const unlike = seen === undefined || written === undefined ? [] : shownDifference(written.plan, seen.plan)
    if (seen === undefined || unlike.length > 0) {
      setDifferences(unlike)
      return setSending(false)
    }
    const answer = await ask<ShownChange>('POST', `/changes/${seen.id}/carry-out`, { planDigest: seen.planDigest })
    setSending(false)
    if (answer.ok) {
      leave()
      return router.push(`/changes/${seen.id}`)
    }
    setRefusal(answer.refusal)
    await showAsItIs(seen)
  }
  return { carryOut, isSending }
}
