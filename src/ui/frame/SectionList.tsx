'use client'
import { Link } from '../parts/Link'
import type { RefObject } from 'react'
import { Beside } from '../parts/Beside'
import type { SectionItem } from './SectionItem'

interface SectionListProps {
  readonly items: readonly SectionItem[]
  readonly anchor: RefObject<HTMLElement | null>
  readonly close: () => void
}

const SectionList = ({ items, anchor, close }: SectionListProps) => (
  <Beside anchor={anchor} close={close} className="z-20 min-w-[180px] py-1">
    <nav aria-label="Sections">
      {items.map(({ href, words, isOn }) => (
        <Link
          key={href}
          href={href}
          aria-current={isOn ? 'page' : undefined}
          className={`list-option py-2 no-underline hover:bg-action-wash ${isOn ? 'font-semibold' : ''}`}
          onClick={close}
        >
          {words}
        </Link>
      ))}
    </nav>
  </Beside>
)

export default SectionList
