'use client'
import isEqual from 'fast-deep-equal'
import { useCallback, useEffect, useRef, useState, type RefObject } from 'react'
import type { CodedRefusal } from '@/core/errors'
import type { ShownChange } from '@/core/views'
import { ask, isPassing } from '../api'
import { DraftWriter, type Hearing, type Written } from './DraftWriter'

const againMilliseconds = 2500

/** How a draft stands beside what its form holds: its latest plan, what was refused, and what somebody else has made of it. */
export function useStanding(kept: ShownChange | undefined) {
  const [written, setWritten] = useState<Written | undefined>(
    kept === undefined ? undefined : { of: JSON.stringify(kept.intent), plan: kept.plan, change: kept },
  )
  const [differences, setDifferences] = useState<readonly string[]>(kept?.differences ?? [])
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [foreign, setForeign] = useState<ShownChange>()
  const [again, count] = useState(0)
  const tryAgain = useCallback(() => count(times => times + 1), [])
  return {
    ...{ written, setWritten, differences, setDifferences, refusal, setRefusal, foreign, setForeign },
    ...{ again, tryAgain },
  }
}
export type Standing = ReturnType<typeof useStanding>

/** The intent as it stands in the form now, for what ends later; `hold` is for what is filled in before it is drawn. */
export function useLatest<Intent>(intent: Intent) {
  const latest = useRef(intent)
  useEffect(() => {
    latest.current = intent
  }, [intent])
  const hold = useCallback((patch: Partial<Intent>) => {
    latest.current = { ...latest.current, ...patch }
  }, [])
  return { latest, hold }
}

/** The writer of this form; what it is answered goes into how the draft stands. */
export function useDraftWriter(
  kind: string,
  kept: ShownChange | undefined,
  { setWritten, setRefusal, setForeign, tryAgain }: Standing,
  latest: RefObject<object>,
): () => DraftWriter {
  const writer = useWriter(kind, kept, {
    wrote: answer => {
      setRefusal(undefined)
      setWritten(answer)
      if (answer.change !== undefined) keepInAddress(answer.change.id)
    },
    refused: why => {
      setRefusal(why)
      if (why.code === 'drafting.edited-elsewhere') void showForeign()
      else if (isPassing(why)) setTimeout(tryAgain, againMilliseconds)
    },
  })
  const showForeign = async () => {
    const id = writer().change?.id
    const now = id === undefined ? undefined : await ask<{ change: ShownChange }>('GET', `/changes/${id}`)
    if (now?.ok !== true) return
    if (!isEqual(now.value.change.intent, latest.current)) return setForeign(now.value.change)
    // A write of our own whose answer was lost, or the same edit made elsewhere: there is nothing to choose.
    writer().rebase(now.value.change)
    setRefusal(undefined)
    setWritten({ of: JSON.stringify(latest.current), plan: now.value.change.plan, change: now.value.change })
  }
  return writer
}

/** The writer of this form, which tells whatever listens now. */
function useWriter(kind: string, kept: ShownChange | undefined, hearing: Hearing): () => DraftWriter {
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
