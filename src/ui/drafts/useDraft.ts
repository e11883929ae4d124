'use client'
import isEqual from 'fast-deep-equal'
import { useRouter } from 'next/navigation'
import { useCallback, useEffect, useRef } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { isReady, type ShownPlan, type PlanCheck } from '@/core/plan'
import type { ShownChange } from '@/core/views'
import { ask } from '../api'
import { useDraftWriter, useLatest, useStanding, type Standing } from './draftStanding'
import type { DraftWriter } from './DraftWriter'
import { shapeTroubles } from './shapeTroubles'
import { useFilled, type Filled } from './useFilled'
import { useCarryOut } from './useCarryOut'
import { useUnsent } from './useUnsent'

const settleMilliseconds = 110

export interface Draft<Intent> {
  readonly intent: Intent
  readonly set: (patch: Partial<Intent>) => void
  /** What a part of the form needs of its field: what stands in it, what is wrong with it, and how it is altered. */
  readonly field: <Field extends keyof Intent & string>(field: Field) => DraftField<Intent[Field]>
  readonly plan: ShownPlan | undefined
  readonly refusal: CodedRefusal | undefined
  readonly differences: readonly string[]
  /** The draft as somebody else has altered it meanwhile; undefined where nobody has. */
  readonly foreign: ShownChange | undefined
  /** Goes on with what the other has made of it, or with what stands here. */
  readonly settle: (whose: 'theirs' | 'mine') => void
  readonly isKept: boolean
  /** Whether the plan is of what the form shows now, and may be carried out. */
  readonly isReady: boolean
  readonly isBusy: boolean
  readonly carryOut: () => Promise<void>
  /** Plans the same intent again, where what it rests on has changed. */
  readonly planAgain: () => void
  readonly discard: () => Promise<void>
  /** What is wrong with the field, by its shape or by the plan; only once it has been touched. */
  readonly errorOf: (field: string) => string | undefined
}

interface DraftField<Value> {
  readonly value: Value
  readonly error: string | undefined
  readonly onChange: (value: Value) => void
}

/**
 * A draft that is planned anew while it is filled in. The first edit keeps it at the server, so that closing the page loses nothing;
 * what cannot be sent now is sent when the server is back. What is carried out is the plan that is shown, named by its digest.
 */
export function useDraft<Intent extends object>(kind: string, initial: Intent, kept?: ShownChange): Draft<Intent> {
  const filled = useFilled<Intent>(kind, initial, kept)
  const standing = useStanding(kept)
  const { intent, fill } = filled
  const { written, refusal, differences, foreign, tryAgain } = standing
  const isLeft = useRef(false)
  const { latest, hold } = useLatest(intent)
  const writer = useDraftWriter(kind, kept, standing, latest)
  useWritten(kind, filled, writer, standing.again)
  showOvertaken(kept, intent, writer(), standing)
  useUnsent(kind, kept, { writer, latest, hold, isLeft, fill, setForeign: standing.setForeign })
  const leave = () => {
    isLeft.current = true
  }
  const { carryOut, discard, isSending } = useEnds(writer, intent, standing, leave)
  const set = useSet(fill, standing)
  const { plan } = written ?? {}
  const errorOf = (field: string) =>
    filled.mayReproach(field) ? (filled.troubleOf(field) ?? brokenAt(field, plan)) : undefined
  return {
    ...{ intent, set, plan, refusal, differences, foreign },
    field: field => ({
      value: intent[field],
      error: errorOf(field),
      onChange: value => set({ [field]: value } as unknown as Partial<Intent>),
    }),
    settle: whose => settled(whose, writer(), fill, standing),
    isKept: written?.change !== undefined,
    isReady: plan !== undefined && isReady(plan) && foreign === undefined && written?.of === JSON.stringify(intent),
    isBusy: isSending,
    ...{ carryOut, discard, errorOf },
    planAgain: tryAgain,
  }
}

/** The rule of the plan that a field breaks. */
const brokenAt = (field: string, plan: ShownPlan | undefined) =>
  plan?.checks.find((check: PlanCheck) => check.field === field && !check.holds && check.level === 'must')?.why

/** What stands in the form is written once it has settled. */
function useWritten<Intent extends object>(
  kind: string,
  { intent, isTouched, mayReproach }: Filled<Intent>,
  writer: () => DraftWriter,
  again: number,
): void {
  useEffect(() => {
    if (writer().isWritten(intent) && again === 0) return
    let isOvertaken = false
    const timer = setTimeout(async () => {
      // What was filled in and is not even of its shape is told at its field and not sent; the server tells all else.
      const troubles = Object.keys(await shapeTroubles(kind, intent))
      if (isOvertaken || troubles.some(mayReproach)) return
      void writer().write(intent, isTouched, again > 0)
    }, settleMilliseconds)
    return () => {
      isOvertaken = true
      clearTimeout(timer)
    }
  }, [writer, kind, intent, isTouched, mayReproach, again])
}

/** What somebody else has saved while the form was open is shown at once, before anything rests on it. */
function showOvertaken(
  kept: ShownChange | undefined,
  intent: object,
  writer: DraftWriter,
  { foreign, setForeign }: Standing,
): void {
  const own = writer.change
  const isOvertaken = kept !== undefined && kept.id === own?.id && kept.edit > own.edit && !writer.isWriting
  if (isOvertaken && foreign?.edit !== kept.edit && !isEqual(kept.intent, intent)) setForeign(kept)
}

/** Fills fields in; what was said to differ from an earlier plan is past. */
function useSet<Intent>(fill: (patch: Partial<Intent>) => void, { setDifferences }: Standing) {
  return useCallback(
    (patch: Partial<Intent>) => {
      fill(patch)
      setDifferences([])
    },
    [fill, setDifferences],
  )
}

/** Goes on from what somebody else has made of the draft: with theirs, or with what stands here. */
function settled<Intent>(
  whose: 'theirs' | 'mine',
  writer: DraftWriter,
  fill: (patch: Partial<Intent>) => void,
  { foreign, setForeign, setRefusal, setWritten, tryAgain }: Standing,
): void {
  if (foreign === undefined) return
  writer.rebase(foreign)
  setForeign(undefined)
  setRefusal(undefined)
  if (whose === 'theirs') {
    fill(foreign.intent as Intent)
    setWritten({ of: JSON.stringify(foreign.intent), plan: foreign.plan, change: foreign })
  }
  tryAgain()
}

/** The two ways in which a draft ends: it is carried out, or discarded. */
function useEnds<Intent extends object>(
  writer: () => DraftWriter,
  intent: Intent,
  { written, setWritten, setDifferences, setRefusal, setForeign }: Standing,
  leave: () => void,
) {
  const router = useRouter()
  const carrying = useCarryOut({
    ...{ writer, intent, written, leave, setWritten, setDifferences, setRefusal, setForeign },
  })
  const discard = async () => {
    leave()
    const id = writer().change?.id
    if (id !== undefined) await ask('DELETE', `/changes/${id}`)
    router.push(window.location.pathname)
  }
  return { ...carrying, discard }
}
