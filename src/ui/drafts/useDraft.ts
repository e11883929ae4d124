'use client'
import isEqual from 'fast-deep-equal'
import { useRouter } from 'next/navigation'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { isReady, planDifference, type Plan, type PlanCheck } from '@/core/plan'
import type { ChangeRecord } from '@/core/views'
import { ask, isPassing } from '../api'
import { DraftWriter, type Hearing, type Written } from './DraftWriter'
import { keepUnsent, takeUnsent } from './unsent'

const settleMilliseconds = 110
const againMilliseconds = 2500

export interface Draft<Intent> {
  readonly intent: Intent
  readonly set: (patch: Partial<Intent>) => void
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
  /** Why the field's first check does not hold; only once it has been touched. */
  readonly errorOf: (field: string) => string | undefined
}

/**
 * A draft that is planned anew while it is filled in. The first edit keeps it at the server, so that closing the page loses nothing;
 * what cannot be sent now is sent when the server is back. What is carried out is the plan that is shown, named by its digest.
 */
export function useDraft<Intent extends object>(kind: string, initial: Intent, kept?: ChangeRecord): Draft<Intent> {
  const router = useRouter()
  const [intent, setIntent] = useState<Intent>((kept?.intent as Intent | undefined) ?? initial)
  const [written, setWritten] = useState<Written | undefined>(
    kept === undefined ? undefined : { of: JSON.stringify(kept.intent), plan: kept.plan, change: kept },
  )
  const [differences, setDifferences] = useState<readonly string[]>(kept?.differences ?? [])
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [foreign, setForeign] = useState<ChangeRecord>()
  const [touched, setTouched] = useState<ReadonlySet<string>>(new Set())
  const [isSending, setSending] = useState(false)
  // A draft that is opened again says at once what it lacks; one that gets its id while it is open does not.
  const [wasKept] = useState(kept !== undefined)
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
    const timer = setTimeout(() => void writer().write(intent, touched.size > 0, again > 0), settleMilliseconds)
    return () => clearTimeout(timer)
  }, [writer, intent, touched, again])

  // What somebody else has saved while the form was open is shown at once, before anything rests on it.
  const own = writer().change
  const isOvertaken = kept !== undefined && kept.id === own?.id && kept.edit > own.edit && !writer().isWriting
  if (isOvertaken && foreign?.edit !== kept.edit && !isEqual(kept.intent, intent)) setForeign(kept)

  const latest = useRef(intent)
  useEffect(() => {
    latest.current = intent
  }, [intent])

  // What an earlier page of this draft could not send stands here again; where the draft was altered meanwhile, both are shown.
  const keptAt = useRef(kept)
  useEffect(() => {
    const was = keptAt.current
    const unsent = takeUnsent(was?.id ?? unkeptName(kind))
    if (unsent === undefined || isEqual(unsent.intent, was?.intent)) return
    const typed = unsent.intent as Intent
    setIntent(typed)
    setTouched(new Set(Object.keys(typed)))
    if (was !== undefined && was.edit !== unsent.edit) setForeign(was)
  }, [kind])

  useEffect(() => {
    const keep = () => {
      const { change } = writer()
      if (isLeft.current || writer().isWritten(latest.current)) return
      keepUnsent(change?.id ?? unkeptName(kind), { intent: latest.current, edit: change?.edit ?? 0 })
    }
    window.addEventListener('pagehide', keep)
    return () => {
      window.removeEventListener('pagehide', keep)
      // What was typed last and not yet sent is sent when the form goes, so that leaving quickly loses nothing.
      if (isLeft.current || writer().change === undefined) return
      void writer().write(latest.current, true).then(keep)
    }
  }, [writer, kind])

  const set = useCallback((patch: Partial<Intent>) => {
    setIntent(was => ({ ...was, ...patch }))
    setTouched(was => new Set([...was, ...Object.keys(patch)]))
    setDifferences([])
  }, [])

  const settle = (whose: 'theirs' | 'mine') => {
    if (foreign === undefined) return
    writer().rebase(foreign)
    setForeign(undefined)
    setRefusal(undefined)
    if (whose === 'theirs') {
      setIntent(foreign.intent as Intent)
      setWritten({ of: JSON.stringify(foreign.intent), plan: foreign.plan, change: foreign })
    }
    tryAgain(count => count + 1)
  }

  const carryOut = async () => {
    setSending(true)
    await writer().write(intent, true)
    const seen = writer().isWritten(intent) ? writer().change : undefined
    // A plan that was shown before the draft was kept must be the one that was kept.
    const unlike = seen === undefined || written === undefined ? [] : planDifference(written.plan, seen.plan)
    if (seen === undefined || unlike.length > 0) {
      setDifferences(unlike)
      return setSending(false)
    }
    const answer = await ask<ChangeRecord>('POST', `/changes/${seen.id}/carry-out`, { planDigest: seen.planDigest })
    setSending(false)
    if (answer.ok) {
      isLeft.current = true
      return router.push(`/changes/${seen.id}`)
    }
    setRefusal(answer.refusal)
    const now = await ask<{ change: ChangeRecord }>('GET', `/changes/${seen.id}`)
    if (!now.ok) return
    if (now.value.change.edit !== seen.edit) return setForeign(now.value.change)
    writer().rebase(now.value.change)
    setWritten({ of: JSON.stringify(intent), plan: now.value.change.plan, change: now.value.change })
    const told = now.value.change.differences
    setDifferences(told.length > 0 ? told : planDifference(seen.plan, now.value.change.plan))
  }

  const planAgain = useCallback(() => tryAgain(count => count + 1), [])

  const discard = async () => {
    isLeft.current = true
    const id = writer().change?.id
    if (id !== undefined) await ask('DELETE', `/changes/${id}`)
    router.push(window.location.pathname)
  }

  const plan = written?.plan
  const errorOf = (field: string): string | undefined => {
    if (!touched.has(field) && !wasKept) return undefined
    return plan?.checks.find((check: PlanCheck) => check.field === field && !check.holds && check.level === 'must')?.why
  }

  return {
    intent,
    set,
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

/** What a draft is known by in its tab before it has an id: its kind, and what it was begun about. */
const unkeptName = (kind: string) => `${kind} ${window.location.pathname}${window.location.search}`

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
