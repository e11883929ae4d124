import { Link } from '../../parts/Link'
import { horizonDays, limitRatio, reachesAfter, type Outlook } from '@/core/capacity'
import { formatBytes } from '@/core/units'
import type { WayOut } from '@/core/views'
import { dateWords } from './dueWords'

const dayMilliseconds = 86_400_000

/** What could be done about a pool, each with the day on which the limit would be reached then, and its draft. */
export function WaysOut({ outlook, ways }: { readonly outlook: Outlook; readonly ways: readonly WayOut[] }) {
  const before = outlook.reachesLimit.p50
  return (
    <section>
      <h3>
        Ways to a later day <span>from {dayOf(outlook, before)} to …</span>
      </h3>
      {ways.length === 0 && (
        <p className="mt-0 text-second">
          No volume of it can go elsewhere in its system, no snapshot holds space, and nothing waits in holding. What is
          left is more drives.
        </p>
      )}
      {ways.map(way => {
        const after = reachesAfter(outlook, way, limitRatio)
        return (
          <div key={way.title} className="border-b border-rule-fine py-[7px]">
            <div className="flex items-baseline justify-between gap-3">
              <b className="min-w-0 font-semibold break-words">{way.title}</b>
              <span className="mono shrink-0">+{formatBytes(BigInt(Math.round(way.bytes)))}</span>
            </div>
            <Later before={before} after={after.p50} words={dayOf(outlook, after.p50)} />
            <div className="flex items-baseline justify-between gap-3 text-second">
              <span>{way.why}</span>
              <Link data-row href={way.href} className="textlink shrink-0">
                Draft
              </Link>
            </div>
          </div>
        )
      })}
    </section>
  )
}

const dayOf = (outlook: Outlook, days: number | null) =>
  days === null ? 'beyond 3 years' : days === 0 ? 'today' : dateWords(outlook.today + days * dayMilliseconds)

interface LaterProps {
  readonly before: number | null
  readonly after: number | null
  readonly words: string
}

/** From the day that stands to the later one, on a line of a year. */
function Later({ before, after, words }: LaterProps) {
  const end = 365
  const at = (days: number | null) => (Math.min(days ?? horizonDays, end) / end) * 100
  return (
    <div className="my-1 flex items-center gap-2">
      <svg viewBox="0 0 100 8" preserveAspectRatio="none" className="h-2 w-[45%]" aria-hidden>
        <line x1={0} x2={100} y1={4} y2={4} stroke="var(--rule)" strokeWidth={1} />
        <line x1={at(before)} x2={at(after)} y1={4} y2={4} stroke="var(--d4)" strokeWidth={3} />
      </svg>
      <span className="font-semibold">{words}</span>
    </div>
  )
}
