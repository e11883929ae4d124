'use client'
import { ChevronDown } from 'lucide-react'
import { useRouter } from 'next/navigation'
import { DropdownMenu } from 'radix-ui'

interface MoreProps {
  readonly items: readonly { readonly words: string; readonly href: string }[]
}

/** What is seldom wanted, behind one button. */
export function More({ items }: MoreProps) {
  const router = useRouter()
  if (items.length === 0) return null
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="button quiet gap-[5px]">
        More
        <ChevronDown aria-hidden size={13} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" side="top" sideOffset={4} className="list-panel z-20 min-w-[170px] py-1">
          {items.map(({ words, href }) => (
            <DropdownMenu.Item
              key={words}
              className="list-option"
              onSelect={() => router.push(href, { scroll: false })}
            >
              {words}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
