'use client'
import { Popover } from 'radix-ui'
import type { ReactNode, RefObject } from 'react'

interface BesideProps {
  readonly anchor: RefObject<HTMLElement | null>
  readonly close: () => void
  readonly className?: string
  readonly children: ReactNode
}

/** Something opened beside a button that stays where it is. Read only when it is opened: no page waits for what places it. */
export const Beside = ({ anchor, close, className = '', children }: BesideProps) => (
  <Popover.Root open onOpenChange={isOpen => !isOpen && close()}>
    <Popover.Anchor virtualRef={anchor as RefObject<HTMLElement>} />
    <Popover.Portal>
      <Popover.Content
        align="start"
        sideOffset={4}
        collisionPadding={8}
        className={`list-panel ${className}`}
        // The button closes it by itself: pressed while it is open, it must not close and open it at once.
        onInteractOutside={event => {
          if (anchor.current?.contains(event.target as Node) === true) event.preventDefault()
        }}
        onCloseAutoFocus={event => {
          event.preventDefault()
          anchor.current?.focus()
        }}
      >
        {children}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
)
