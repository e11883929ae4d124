import Link from 'next/link'
import type { todayFindings } from '@/core/today'
import { State } from '../../parts/State'

/** What to look at today, the gravest first. */
export const TodayFindings = ({ findings }: { readonly findings: ReturnType<typeof todayFindings> }) => (
  <>
    {findings.length > 0 && (
      <h3>
        To look at <span>gravest first</span>
      </h3>
    )}
    {findings.map(({ what, why, remedy, href, gravity }) => (
      <div key={`${what}/${href}`} className="mb-2 border-l-2 pl-[10px]" style={{ borderColor: `var(--${gravity})` }}>
        <State gravity={gravity}>
          <Link href={href} className="font-semibold no-underline">
            {what}
          </Link>
        </State>
        <div className="pl-[17px] text-second">
          {why} {remedy}
        </div>
      </div>
    ))}
  </>
)
