'use client'
import { ListChecks } from 'lucide-react'
import { lazy, Suspense, useRef, useState } from 'react'

const RoundNote = lazy(() => import('./RoundNote'))

/** Notes that the round is done, with a word for whoever does the next. */
export function RoundDone() {
  const button = useRef<HTMLButtonElement>(null)
  const [isOpen, setOpen] = useState(false)
  return (
    <>
      <button
        ref={button}
        type="button"
        aria-haspopup="dialog"
        aria-expanded={isOpen}
        className="button quiet h-7 gap-[6px] px-[9px] font-normal"
        onClick={() => setOpen(was => !was)}
      >
        <ListChecks aria-hidden size={13} />
        Round done
      </button>
      <Suspense>{isOpen && <RoundNote anchor={button} close={() => setOpen(false)} />}</Suspense>
    </>
  )
}
