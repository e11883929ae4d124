import type { Outlook } from '@/core/capacity'
import { Mark, type Gravity } from '../../parts/State'
import { dateWords } from './dueWords'

const dayMilliseconds = 86_400_000

/** What comes when, where nobody does anything, and how such forecasts have held. */
export function IfNothing({ outlook }: { readonly outlook: Outlook }) {
  const { held, tried, today, reachesLimit, reachesFull } = outlook
  return (
    <section>
      <h3>
        If nothing is done{' '}
        {tried > 0 && (
          <span>
            {held} of {tried} such forecasts held
          </span>
        )}
      </h3>
      <Line gravity="soon" at={when(today, reachesLimit.p50)} words="nine tenths are written: no room to place more" />
      <Line gravity="now" at={when(today, reachesFull.p50)} words="all of it is written: writes are refused" />
    </section>
  )
}

const when = (today: number, days: number | null) =>
  days === null ? undefined : days === 0 ? 'today' : dateWords(today + days * dayMilliseconds)

interface LineProps {
  readonly gravity: Gravity
  readonly at: string | undefined
  readonly words: string
}

const Line = ({ gravity, at, words }: LineProps) => (
  <div className="flex items-baseline gap-2 border-b border-rule-fine py-1">
    <span className={gravity === 'now' ? 'text-now' : 'text-soon'}>
      <Mark gravity={gravity} /> {at ?? 'not within 3 years'}
    </span>
    <span>{words}</span>
  </div>
)
