'use client'
import { useRouter } from 'next/navigation'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { isReady, type Plan, type PlanCheck } from '@/core/plan'
import type { ChangeRecord } from '@/core/views'
import { ask, isPassing } from '../api'

const settleMilliseconds = 110
const againMilliseconds = 2500

export interface Draft<Intent> {
  readonly intent: Intent
  readonly set: (patch: Partial<Intent>) => void
  readonly plan: Plan | undefined
  readonly refusal: CodedRefusal | undefined
  readonly differences: readonly string[]
  readonly isKept: boolean
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
 * what cannot be sent now is sent when the server is back.
 */
export function useDraft<Intent extends object>(kind: string, initial: Intent, kept?: ChangeRecord): Draft<Intent> {
  const router = useRouter()
  const [intent, setIntent] = useState<Intent>((kept?.intent as Intent | undefined) ?? initial)
  const [changeId, setChangeId] = useState(kept?.id)
  const [plan, setPlan] = useState<Plan | undefined>(kept?.plan)
  const [differences, setDifferences] = useState<readonly string[]>(kept?.differences ?? [])
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [touched, setTouched] = useState<ReadonlySet<string>>(new Set())
  const [isSending, setSending] = useState(false)
  const [again, tryAgain] = useState(0)
  const sent = useRef({
    turn: 0,
    making: undefined as Promise<string | undefined> | undefined,
    planned: '',
    isLeft: false,
  })

  useEffect(() => {
    const text = JSON.stringify(intent)
    if (sent.current.planned === text && again === 0) return
    const turn = ++sent.current.turn
    const timer = setTimeout(async () => {
      const answer = await planned(kind, intent, changeId, touched.size > 0, sent.current)
      if (turn !== sent.current.turn) return
      if (!answer.ok) {
        setRefusal(answer.refusal)
        if (isPassing(answer.refusal)) setTimeout(() => tryAgain(count => count + 1), againMilliseconds)
        return
      }
      sent.current.planned = text
      setRefusal(undefined)
      setPlan(answer.value.plan)
      if (answer.value.id !== undefined && answer.value.id !== changeId) {
        setChangeId(answer.value.id)
        keepInAddress(answer.value.id)
      }
    }, settleMilliseconds)
    return () => clearTimeout(timer)
  }, [kind, intent, changeId, touched, again])

  const latest = useRef({ intent, changeId })
  useEffect(() => {
    latest.current = { intent, changeId }
  }, [intent, changeId])
  useEffect(() => {
    const state = sent.current
    // What was typed last and not yet sent is sent when the form goes, so that leaving quickly loses nothing.
    return () => {
      const { intent: last, changeId: id } = latest.current
      if (id !== undefined && !state.isLeft && state.planned !== '' && state.planned !== JSON.stringify(last)) {
        void ask('PUT', `/changes/${id}`, { intent: last })
      }
    }
  }, [])

  const set = useCallback((patch: Partial<Intent>) => {
    setIntent(was => ({ ...was, ...patch }))
    setTouched(was => new Set([...was, ...Object.keys(patch)]))
    setDifferences([])
  }, [])

  const carryOut = async () => {
    setSending(true)
    const id = changeId ?? (await made(kind, intent, sent.current))
    const answer = id === undefined ? undefined : await ask<ChangeRecord>('POST', `/changes/${id}/carry-out`)
    setSending(false)
    if (answer === undefined || id === undefined) return
    if (answer.ok) {
      sent.current.isLeft = true
      return router.push(`/changes/${id}`)
    }
    setRefusal(answer.refusal)
    setChangeId(id)
    const now = await ask<{ change: ChangeRecord }>('GET', `/changes/${id}`)
    if (!now.ok) return
    setPlan(now.value.change.plan)
    setDifferences(now.value.change.differences)
  }

  const planAgain = useCallback(() => tryAgain(count => count + 1), [])

  const discard = async () => {
    sent.current.isLeft = true
    if (changeId !== undefined) await ask('DELETE', `/changes/${changeId}`)
    router.push(window.location.pathname)
  }

  const errorOf = (field: string): string | undefined => {
    if (!touched.has(field) && kept === undefined) return undefined
    return plan?.checks.find((check: PlanCheck) => check.field === field && !check.holds && check.level === 'must')?.why
  }

  return {
    intent,
    set,
    plan,
    refusal,
    differences,
    isKept: changeId !== undefined,
    isReady: plan !== undefined && isReady(plan),
    isBusy: isSending,
    carryOut,
    planAgain,
    discard,
    errorOf,
  }
}

interface Sent {
  making: Promise<string | undefined> | undefined
}

async function made(kind: string, intent: object, sent: Sent): Promise<string | undefined> {
  sent.making ??= ask<ChangeRecord>('POST', '/changes', { kind, intent }).then(answer =>
    answer.ok ? answer.value.id : undefined,
  )
  const id = await sent.making
  if (id === undefined) sent.making = undefined
  return id
}

async function planned(kind: string, intent: object, changeId: string | undefined, isTouched: boolean, sent: Sent) {
  if (!isTouched && changeId === undefined) {
    const answer = await ask<Plan>('POST', '/plans', { kind, intent })
    return answer.ok ? { ok: true as const, value: { plan: answer.value, id: undefined } } : answer
  }
  const id = changeId ?? (await made(kind, intent, sent))
  if (id === undefined) {
    const answer = await ask<ChangeRecord>('POST', '/changes', { kind, intent })
    return answer.ok ? { ok: true as const, value: { plan: answer.value.plan, id: answer.value.id } } : answer
  }
  const answer = await ask<ChangeRecord>('PUT', `/changes/${id}`, { intent })
  return answer.ok ? { ok: true as const, value: { plan: answer.value.plan, id } } : answer
}

/** Drafts that got their id while their form was open in this page. */
const madeHere = new Set<string>()
export const isMadeHere = (id: string) => madeHere.has(id)

/** The address names the draft, so that the page can be closed, sent on and opened again. */
function keepInAddress(id: string): void {
  madeHere.add(id)
  const address = new URL(window.location.href)
  address.searchParams.set('change', id)
  window.history.replaceState(null, '', address)
}
