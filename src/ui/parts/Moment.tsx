'use client'
import { DateTime } from 'luxon'
import { useSyncExternalStore } from 'react'

const nothing = () => () => undefined

/** A moment of a system's clock, exact, in the reader's zone. The server does not know that zone: it writes UTC, and the browser replaces it. */
export function Moment({ at }: { readonly at: string }) {
  const isBrowser = useSyncExternalStore(
    nothing,
    () => true,
    () => false,
  )
  const moment = DateTime.fromISO(at, isBrowser ? {} : { zone: 'utc' })
  return (
    <time dateTime={at} data-hint={moment.toUTC().toISO() ?? at} className="whitespace-nowrap">
      {moment.toFormat('ccc d LLL HH:mm:ss')}
    </time>
  )
}
