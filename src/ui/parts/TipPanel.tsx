'use client'
import { Popover } from 'radix-ui'
import type { ReactNode } from 'react'

interface TipPanelProps {
  readonly id: string
  /** Where the part stands that is pointed at. */
  readonly rectOf: () => DOMRect | undefined
  readonly words: ReactNode
}

export default function TipPanel({ id, rectOf, words }: TipPanelProps) {
  const anchor = { current: { getBoundingClientRect: () => rectOf() ?? new DOMRect() } }
  return (
    <Popover.Root open>
      <Popover.Anchor virtualRef={anchor} />
      <Popover.Portal>
        <Popover.Content
          id={id}
          role="tooltip"
          sideOffset={4}
          collisionPadding={8}
          className="list-panel pointer-events-none max-w-[320px] px-2 py-1 text-sm"
          // It is only read: whatever has the focus keeps it.
          onOpenAutoFocus={event => event.preventDefault()}
          onCloseAutoFocus={event => event.preventDefault()}
        >
          {words}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
