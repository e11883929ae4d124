'use client'
import { Menu } from 'lucide-react'
import { lazy, Suspense, useRef, useState } from 'react'
import type { SectionItem } from './SectionItem'

const SectionList = lazy(() => import('./SectionList'))

/** The work line folded into one button, for screens too narrow for it. */
export function SectionMenu({ items }: { readonly items: readonly SectionItem[] }) {
  const button = useRef<HTMLButtonElement>(null)
  const [isOpen, setOpen] = useState(false)
  return (
    <>
      <button
        ref={button}
        type="button"
        aria-label="Sections"
        aria-expanded={isOpen}
        className="flex h-8 min-w-0 items-center gap-2 border-0 bg-transparent px-1 font-semibold md:hidden"
        onClick={() => setOpen(was => !was)}
      >
        <Menu aria-hidden size={16} className="shrink-0" />
        <span className="truncate">{items.find(item => item.isOn)?.words}</span>
      </button>
      <Suspense>{isOpen && <SectionList items={items} anchor={button} close={() => setOpen(false)} />}</Suspense>
    </>
  )
}
