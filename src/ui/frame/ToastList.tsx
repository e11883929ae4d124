'use client'
import { X } from 'lucide-react'
import { Toast as Radix } from 'radix-ui'
import { Mark } from '../parts/State'
import type { Toast } from '../parts/toast'

const shownMilliseconds = 5000

/** What is said in passing, at the foot of the page; it goes by itself, or when it is put away. */
export default function ToastList({
  toasts,
  onDrop,
}: {
  readonly toasts: readonly Toast[]
  readonly onDrop: (id: number) => void
}) {
  return (
    <Radix.Provider duration={shownMilliseconds} label="Notice">
      {toasts.map(({ id, gravity, words }) => (
        <Radix.Root key={id} className="toast" onOpenChange={isOpen => !isOpen && onDrop(id)}>
          <span className={`mt-[3px] ${gravity === 'fine' ? 'text-fine' : 'text-now'}`}>
            <Mark gravity={gravity} size={10} />
          </span>
          <Radix.Title className="min-w-0 flex-1">{words}</Radix.Title>
          <Radix.Close aria-label="Put away" className="border-0 bg-transparent p-0 text-faint hover:text-ink">
            <X aria-hidden size={13} />
          </Radix.Close>
        </Radix.Root>
      ))}
      <Radix.Viewport className="no-print fixed bottom-4 left-4 z-50 m-0 flex list-none flex-col gap-2 p-0 outline-none" />
    </Radix.Provider>
  )
}
