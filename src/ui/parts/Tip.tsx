'use client'
import { cloneElement, lazy, Suspense, useId, useRef, useState, type ReactElement, type ReactNode } from 'react'

const TipPanel = lazy(() => import('./TipPanel'))
export const tipMilliseconds = 350

interface TipProps {
  readonly words: ReactNode
  /** What can be pointed at and focused. */
  readonly children: ReactElement<{ 'aria-describedby'?: string | undefined }>
}

/**
 * More about something, beside it while it is pointed at or focused. Nothing that has to be known stands only here. What places it is
 * read when the first one is asked for: most pages are left without one.
 */
export function Tip({ words, children }: TipProps) {
  const id = useId()
  const frame = useRef<HTMLSpanElement>(null)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const [isShown, show] = useState(false)
  // What holds the part has no place of its own.
  const rectOf = () => frame.current?.firstElementChild?.getBoundingClientRect()
  const begin = () => {
    clearTimeout(timer.current)
    timer.current = setTimeout(() => show(true), tipMilliseconds)
  }
  const end = () => {
    clearTimeout(timer.current)
    show(false)
  }
  return (
    <span
      ref={frame}
      className="contents"
      onPointerEnter={begin}
      onPointerLeave={end}
      onPointerDown={end}
      onFocus={begin}
      onBlur={end}
      onKeyDown={event => event.key === 'Escape' && end()}
    >
      {cloneElement(children, isShown ? { 'aria-describedby': id } : {})}
      <Suspense>{isShown && <TipPanel id={id} rectOf={rectOf} words={words} />}</Suspense>
    </span>
  )
}
