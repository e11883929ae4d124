'use client'
import { Popover } from 'radix-ui'
import { useMemo, type ReactNode, type RefObject } from 'react'

interface TipPanelProps {
  readonly id: string
  /** What holds the part that is pointed at; it has no place of its own. */
  readonly frame: RefObject<HTMLElement | null>
  readonly words: ReactNode
}

export default function TipPanel({ id, frame, words }: TipPanelProps) {
  const anchor = useMemo(
    () => ({
      current: {
        getBoundingClientRect: () => frame.current?.firstElementChild?.getBoundingClientRect() ?? new DOMRect(),
      },
    }),
    [frame],
  )
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
