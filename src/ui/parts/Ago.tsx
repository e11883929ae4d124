'use client'
import { useSyncExternalStore } from 'react'
import { formatSeconds } from '@/core/units'

const everyMilliseconds = 5000
const subscribe = (changed: () => void) => {
  const timer = setInterval(changed, everyMilliseconds)
  return () => clearInterval(timer)
}
const beat = () => Math.floor(Date.now() / everyMilliseconds)

/** A moment relative to now, with the exact one on hover in the reader's zone. */
export function Ago({ at }: { readonly at: string }) {
  const now = useSyncExternalStore(subscribe, beat, () => 0)
  const date = new Date(at)
  // The server does not know the reader's zone: it writes the instant, and the browser replaces it.
  if (now === 0) return <time dateTime={at}>{at.slice(0, 16).replace('T', ' ')}</time>
  const seconds = (now * everyMilliseconds - date.getTime()) / 1000
  return (
    <time dateTime={at} data-hint={date.toLocaleString()}>
      {seconds < 5 ? 'just now' : `${formatSeconds(seconds)} ago`}
    </time>
  )
}
