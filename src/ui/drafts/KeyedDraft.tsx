'use client'
import { Fragment, useState, type ReactNode } from 'react'
import { isMadeHere } from './draftStanding'

/**
 * Gives each draft a form of its own, and lets a form stay when the server gives its draft an id: the address then names the
 * draft, but what has been typed and found stays where it is.
 */
export function KeyedDraft({
  id,
  of = '',
  children,
}: {
  readonly id: string | undefined
  readonly of?: string
  readonly children: ReactNode
}) {
  const [now, setNow] = useState({ id, turn: 0 })
  if (now.id !== id) {
    const isSame = id !== undefined && now.id === undefined && isMadeHere(id)
    setNow({ id, turn: isSame ? now.turn : now.turn + 1 })
  }
  return <Fragment key={`${of}/${now.turn}`}>{children}</Fragment>
}
