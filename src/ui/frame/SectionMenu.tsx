'use client'
import { Menu } from 'lucide-react'
import Link from 'next/link'
import { DropdownMenu } from 'radix-ui'

interface SectionMenuProps {
  readonly items: readonly { readonly href: string; readonly words: string; readonly isOn: boolean }[]
}

/** The work line folded into one button, for screens too narrow for it. */
export function SectionMenu({ items }: SectionMenuProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label="Sections"
        className="flex h-8 min-w-0 items-center gap-2 border-0 bg-transparent px-1 font-semibold md:hidden"
      >
        <Menu aria-hidden size={16} className="shrink-0" />
        <span className="truncate">{items.find(item => item.isOn)?.words}</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={4} className="list-panel z-20 min-w-[180px] py-1">
          {items.map(({ href, words, isOn }) => (
            <DropdownMenu.Item key={href} asChild>
              <Link
                href={href}
                aria-current={isOn ? 'page' : undefined}
                className={`list-option py-2 no-underline ${isOn ? 'font-semibold' : ''}`}
              >
                {words}
              </Link>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
