'use client'
import { ChevronRight } from 'lucide-react'
import { Collapsible } from 'radix-ui'
import { useState, type ReactNode } from 'react'

interface FoldProps {
  readonly title: ReactNode
  /** Whether it is open until somebody folds it; follows what it is about, until then. */
  readonly isOpen?: boolean
  readonly children: ReactNode
  readonly className?: string
}

/** More of something, behind a line that says what it is. */
export function Fold({ title, isOpen = false, children, className = '' }: FoldProps) {
  const [chosen, setChosen] = useState<boolean>()
  return (
    <Collapsible.Root open={chosen ?? isOpen} onOpenChange={setChosen} className={className}>
      <Collapsible.Trigger className="group flex w-full items-center gap-1 border-0 bg-transparent p-0 text-left text-second hover:text-ink">
        <ChevronRight aria-hidden size={13} className="shrink-0 text-faint group-data-[state=open]:rotate-90" />
        <span className="min-w-0 flex-1">{title}</span>
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  )
}
