'use client'
import { Tooltip } from 'radix-ui'
import type { ReactElement, ReactNode } from 'react'

interface TipProps {
  readonly words: ReactNode
  /** What can be pointed at and focused. */
  readonly children: ReactElement
}

/** More about something, beside it while it is pointed at or focused. Nothing that has to be known stands only here. */
export function Tip({ words, children }: TipProps) {
  return (
    <Tooltip.Provider delayDuration={350}>
      <Tooltip.Root>
        <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content sideOffset={4} collisionPadding={8} className="list-panel max-w-[320px] px-2 py-1 text-sm">
            {words}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  )
}
