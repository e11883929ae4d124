'use client'
import { Link } from '../parts/Link'
import { usePathname } from 'next/navigation'
import type { EstateClock } from '@/core/clock'
import { CommandList } from './CommandList'
import { EstateTime } from './EstateTime'
import { SectionMenu } from './SectionMenu'
import { sections } from './sections'

interface WorkLineProps {
  readonly running: number
  readonly clock: EstateClock
  readonly administrator: string
}

/** The line along the top: the work in its order, what runs, the estate's time, search and account. */
export function WorkLine({ running, clock, administrator }: WorkLineProps) {
  const path = usePathname()
  const isOn = (href: string) => (href === '/' ? path === '/' : path.startsWith(href))
  const [today, ...work] = sections
  return (
    <header className="flex h-11 shrink-0 items-center border-b border-rule px-5 max-md:px-3">
      <Link
        href="/"
        className="mr-6 font-serif max-md:mr-2 text-[19px] font-semibold tracking-[-.01em] text-ink no-underline"
      >
        Wendrel
      </Link>
      <SectionMenu
        items={[...sections, { href: '/changes', words: `Changes ${running}` }].map(({ href, words }) => ({
          href,
          words,
          isOn: isOn(href),
        }))}
      />
      <Work today={today} isOn={isOn} work={work} running={running} />
      <span className="flex-1" />
      <span className="max-md:hidden">
        <EstateTime clock={clock} />
      </span>
      <CommandList />
      <Link
        href="/account"
        className="ml-4 max-w-[130px] truncate text-second no-underline hover:text-ink max-md:ml-2 max-md:max-w-[70px]"
        data-hint="Your account, administrators, tokens and settings"
      >
        {administrator}
      </Link>
    </header>
  )
}

interface ItemProps {
  readonly href: string
  readonly words: string
  readonly isOn: boolean
  readonly figure?: number
}

const Item = ({ href, words, isOn, figure }: ItemProps) => (
  <Link
    href={href}
    aria-current={isOn ? 'page' : undefined}
    className={`relative flex h-11 items-center px-[3px] no-underline ${isOn ? 'font-semibold text-ink after:absolute after:inset-x-0 after:-bottom-px after:h-[2px] after:bg-action' : 'text-second hover:text-ink'}`}
  >
    {words}
    {figure !== undefined && <span className="mono ml-[6px]">{figure}</span>}
  </Link>
)

type Section = (typeof sections)[number]

interface WorkProps {
  readonly today: Section | undefined
  readonly isOn: (href: string) => boolean
  readonly work: readonly Section[]
  readonly running: number
}

const Work = ({ today, isOn, work, running }: WorkProps) => (
  <nav aria-label="Work" className="flex items-center max-md:hidden">
    {today !== undefined && <Item {...today} isOn={isOn(today.href)} />}
    <span className="w-6" />
    {work.map((section, index) => (
      <span key={section.href} className="flex items-center">
        {index > 0 && <i aria-hidden className="mx-2 h-px w-6 bg-rule" />}
        <Item {...section} isOn={isOn(section.href)} />
      </span>
    ))}
    <span className="w-6" />
    <Item href="/changes" words="Changes" isOn={isOn('/changes')} figure={running} />
  </nav>
)
