'use client'
import { lazy, Suspense, useEffect, useId, useState } from 'react'
import { tipMilliseconds } from '../parts/Tip'

const TipPanel = lazy(() => import('../parts/TipPanel'))

interface Shown {
  readonly target: HTMLElement
  readonly words: string
}

/** What is said of a part: the words in full of one that is cut off, or more than it shows. */
function hintOf(target: HTMLElement): Shown | undefined {
  const words = target.dataset['hint'] ?? ''
  const isCut = target.scrollWidth > target.clientWidth
  return words === '' || (words === target.textContent && !isCut) ? undefined : { target, words }
}

/**
 * More about whatever is pointed at or focused and carries `data-hint`: one for the whole page, so that a table of a thousand rows
 * has no listener of its own for each cell. Nothing that has to be known stands only there.
 */
export function Hints() {
  const id = useId()
  const [shown, show] = useState<Shown>()
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    const end = () => {
      clearTimeout(timer)
      show(undefined)
    }
    const begin = ({ target }: Event) => {
      const hinted = target instanceof Element ? target.closest<HTMLElement>('[data-hint]') : null
      end()
      if (hinted !== null) timer = setTimeout(() => show(hintOf(hinted)), tipMilliseconds)
    }
    const left = ({ key }: KeyboardEvent) => key === 'Escape' && end()
    const listening = new AbortController()
    const { signal } = listening
    document.addEventListener('pointerover', begin, { signal })
    document.addEventListener('focusin', begin, { signal })
    document.addEventListener('pointerdown', end, { signal })
    document.addEventListener('keydown', left, { signal })
    document.addEventListener('scroll', end, { signal, capture: true, passive: true })
    return () => {
      clearTimeout(timer)
      listening.abort()
    }
  }, [])
  useEffect(() => {
    if (shown === undefined) return undefined
    shown.target.setAttribute('aria-describedby', id)
    return () => shown.target.removeAttribute('aria-describedby')
  }, [shown, id])
  if (shown === undefined) return null
  return (
    <Suspense>
      <TipPanel id={id} rectOf={() => shown.target.getBoundingClientRect()} words={shown.words} />
    </Suspense>
  )
}
