'use client'
import isEqual from 'fast-deep-equal'
import { useRouter } from 'next/navigation'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { isReady, type Plan, type PlanCheck } from '@/core/plan'
import type { ChangeRecord } from '@/core/views'
import { ask, isPassing } from '../api'
import { DraftWriter, type Hearing, type Written } from './DraftWriter'
import { shapeTroubles } from './shapeTroubles'
import { useFilled } from './useFilled'
import { useCarryOut } from './useCarryOut'
import { useUnsent } from './useUnsent'

const settleMilliseconds = 110
const againMilliseconds = 2500

export interface Draft<Intent> {
  readonly intent: Intent
  readonly set: (patch: Partial<Intent>) => void
  /** What a part of the form needs of its field: what stands in it, what is wrong with it, and how it is altered. */
  readonly field: <Field extends keyof Intent & string>(field: Field) => DraftField<Intent[Field]>
  readonly plan: Plan | undefined
  readonly refusal: CodedRefusal | undefined
  readonly differences: readonly string[]
  /** The draft as somebody else has altered it meanwhile; undefined where nobody has. */
  readonly foreign: ChangeRecord | undefined
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
export function useDraft<Intent extends object>(kind: string, initial: Intent, kept?: ChangeRecord): Draft<Intent> {
  const router = useRouter()
  const filled = useFilled<Intent>(kind, initial, kept)
  const { intent, isTouched, mayReproach } = filled
  const [written, setWritten] = useState<Written | undefined>(
    kept === undefined ? undefined : { of: JSON.stringify(kept.intent), plan: kept.plan, change: kept },
  )
  const [differences, setDifferences] = useState<readonly string[]>(kept?.differences ?? [])
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [foreign, setForeign] = useState<ChangeRecord>()
  const [again, tryAgain] = useState(0)
  const isLeft = useRef(false)
  const writer = useWriter(kind, kept, {
    wrote: answer => {
      setRefusal(undefined)
      setWritten(answer)
      if (answer.change !== undefined) keepInAddress(answer.change.id)
    },
    refused: why => {
      setRefusal(why)
      if (why.code === 'drafting.edited-elsewhere') void showForeign()
      else if (isPassing(why)) setTimeout(() => tryAgain(count => count + 1), againMilliseconds)
    },
  })
  const latest = useRef(intent)
  useEffect(() => {
    latest.current = intent
  }, [intent])

  const showForeign = async () => {
    const id = writer().change?.id
    const now = id === undefined ? undefined : await ask<{ change: ChangeRecord }>('GET', `/changes/${id}`)
    if (now?.ok !== true) return
    if (!isEqual(now.value.change.intent, latest.current)) return setForeign(now.value.change)
    // A write of our own whose answer was lost, or the same edit made elsewhere: there is nothing to choose.
    writer().rebase(now.value.change)
    setRefusal(undefined)
    setWritten({ of: JSON.stringify(latest.current), plan: now.value.change.plan, change: now.value.change })
  }

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

  // What somebody else has saved while the form was open is shown at once, before anything rests on it.
  const own = writer().change
  const isOvertaken = kept !== undefined && kept.id === own?.id && kept.edit > own.edit && !writer().isWriting
  if (isOvertaken && foreign?.edit !== kept.edit && !isEqual(kept.intent, intent)) setForeign(kept)

  useUnsent(kind, kept, { writer, latest, isLeft, fill: filled.fill, setForeign })

  const { fill } = filled
  const set = useCallback(
    (patch: Partial<Intent>) => {
      fill(patch)
      setDifferences([])
    },
    [fill],
  )

  const settle = (whose: 'theirs' | 'mine') => {
    if (foreign === undefined) return
    writer().rebase(foreign)
    setForeign(undefined)
    setRefusal(undefined)
    if (whose === 'theirs') {
      fill(foreign.intent as Intent)
      setWritten({ of: JSON.stringify(foreign.intent), plan: foreign.plan, change: foreign })
    }
    tryAgain(count => count + 1)
  }

  const { carryOut, isSending } = useCarryOut({
    writer,
    intent,
    written,
    leave: () => {
      isLeft.current = true
    },
    setWritten,
    setDifferences,
    setRefusal,
    setForeign,
  })
  const planAgain = useCallback(() => tryAgain(count => count + 1), [])

  const discard = async () => {
    isLeft.current = true
    const id = writer().change?.id
    if (id !== undefined) await ask('DELETE', `/changes/${id}`)
    router.push(window.location.pathname)
  }

  const plan = written?.plan
  const errorOf = (field: string): string | undefined => {
    if (!mayReproach(field)) return undefined
    const broken = plan?.checks.find(
      (check: PlanCheck) => check.field === field && !check.holds && check.level === 'must',
    )
    return filled.troubleOf(field) ?? broken?.why
  }

  return {
    intent,
    set,
    field: field => ({
      value: intent[field],
      error: errorOf(field),
      onChange: value => set({ [field]: value } as unknown as Partial<Intent>),
    }),
    plan,
    refusal,
    differences,
    foreign,
    settle,
    isKept: written?.change !== undefined,
    isReady: plan !== undefined && isReady(plan) && foreign === undefined && written?.of === JSON.stringify(intent),
    isBusy: isSending,
    carryOut,
    planAgain,
    discard,
    errorOf,
  }
}

/** The writer of this form, which tells whatever listens now. */
function useWriter(kind: string, kept: ChangeRecord | undefined, hearing: Hearing): () => DraftWriter {
  const [writer] = useState(() => new DraftWriter(kind, kept))
  useEffect(() => {
    writer.listen(hearing)
  })
  return useCallback(() => writer, [writer])
}

/** Drafts that got their id while their form was open in this page. */
const madeHere = new Set<string>()
export const isMadeHere = (id: string) => madeHere.has(id)

/** The address names the draft, so that the page can be closed, sent on and opened again. */
function keepInAddress(id: string): void {
  const address = new URL(window.location.href)
  if (address.searchParams.get('change') === id) return
  madeHere.add(id)
  address.searchParams.set('change', id)
  window.history.replaceState(null, '', address)
}
