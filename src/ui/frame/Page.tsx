'use client'
import { useEffect, useState, type ReactNode } from 'react'
import { marginEvent } from './theme'
import { ArrowLeftToLine, ArrowRightToLine, X } from 'lucide-react'
import { Tip } from '../parts/Tip'

interface PageProps {
  readonly children: ReactNode
  readonly margin?: ReactNode
}

/** A sheet with its margin. The margin can be folded away, widened to the whole sheet, and comes back as it was. */
export function Page({ children, margin }: PageProps) {
  const [isFolded, fold] = useState(false)
  const [isWide, widen] = useState(false)
  useEffect(() => {
    const toggle = () => fold(was => !was)
    window.addEventListener(marginEvent, toggle)
    return () => window.removeEventListener(marginEvent, toggle)
  }, [])
  const columns =
    margin === undefined || isFolded
      ? 'grid-cols-1'
      : isWide
        ? 'grid-cols-[minmax(0,1fr)_minmax(0,1.6fr)]'
        : 'grid-cols-[minmax(0,63fr)_minmax(330px,37fr)]'
  return (
    <div className={`grid min-h-0 flex-1 ${columns} max-md:block max-md:overflow-auto`}>
      <main className="min-h-0 overflow-auto px-5 pt-[14px] pb-8">{children}</main>
      {margin !== undefined && !isFolded && (
        <aside
          data-margin
          aria-label="Margin"
          className="relative flex min-h-0 flex-col border-l border-rule bg-sheet max-md:border-t max-md:border-l-0"
        >
          <MarginButtons isWide={isWide} widen={() => widen(was => !was)} fold={() => fold(true)} />
          {margin}
        </aside>
      )}
    </div>
  )
}

interface MarginButtonsProps {
  readonly isWide: boolean
  readonly widen: () => void
  readonly fold: () => void
}

const MarginButtons = ({ isWide, widen, fold }: MarginButtonsProps) => (
  <div className="no-print absolute top-2 right-3 z-10 flex gap-1 text-faint max-md:hidden">
    <Tip words={isWide ? 'Narrower' : 'Wider'}>
      <button
        type="button"
        className="border-0 bg-transparent px-1 hover:text-ink"
        onClick={widen}
        aria-label={isWide ? 'Make the margin narrower' : 'Make the margin wider'}
      >
        {isWide ? <ArrowRightToLine aria-hidden size={14} /> : <ArrowLeftToLine aria-hidden size={14} />}
      </button>
    </Tip>
    <Tip
      words={
        <>
          Fold away <kbd>.</kbd>
        </>
      }
    >
      <button
        type="button"
        className="border-0 bg-transparent px-1 hover:text-ink"
        onClick={fold}
        aria-label="Fold the margin away"
      >
        <X aria-hidden size={14} />
      </button>
    </Tip>
  </div>
)

/** The usual margin: what scrolls, and a foot that stays. */
export function Margin({ children, foot }: { readonly children: ReactNode; readonly foot?: ReactNode }) {
  return (
    <>
      <div className="min-h-0 flex-1 overflow-auto px-5 pt-[14px] pb-5">{children}</div>
      {foot !== undefined && (
        <div className="flex shrink-0 flex-wrap items-center gap-[10px] border-t border-rule bg-sheet px-5 py-[10px]">
          {foot}
        </div>
      )}
    </>
  )
}

/** A title with the sub-sections beside it, as a row of words. */
export function Title({ words, children }: { readonly words: string; readonly children?: ReactNode }) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1 className="min-w-0 break-words">{words}</h1>
      {children}
    </div>
  )
}
