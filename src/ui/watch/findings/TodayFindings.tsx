import { Link } from '../../parts/Link'
import { mayStand, type StoodFinding, type TodayFinding } from '@/core/today'
import { countWords } from '@/core/units'
import { Fold } from '../../parts/Fold'
import { State } from '../../parts/State'

interface TodayFindingsProps {
  readonly findings: readonly TodayFinding[]
  /** What somebody has said may stand. */
  readonly stood?: readonly StoodFinding[]
}

/** What to look at today, the gravest first; folded beneath it what is let stand. */
export const TodayFindings = ({ findings, stood = [] }: TodayFindingsProps) => (
  <>
    {findings.length > 0 && (
      <h3>
        To look at <span>gravest first</span>
      </h3>
    )}
    {findings.map(finding => (
      <ToLookAt key={finding.key} finding={finding} />
    ))}
    {stood.length > 0 && (
      <Fold title={<span className="text-second">{countWords(stood.length, 'thing is', 'things are')} let stand</span>}>
        {stood.map(({ key, what, href, exception: { reason, signedBy, until } }) => (
          <div key={key} className="mb-1 pl-[17px]">
            <Link href={href} className="no-underline">
              {what}
            </Link>{' '}
            <span className="text-second">
              until {until.slice(0, 10)}, by {signedBy}: {reason}
            </span>
          </div>
        ))}
      </Fold>
    )}
  </>
)

const ToLookAt = ({ finding: { key, what, why, remedy, href, gravity } }: { readonly finding: TodayFinding }) => (
  <div className="group mb-2 border-l-2 pl-[10px]" style={{ borderColor: `var(--${gravity})` }}>
    <State gravity={gravity}>
      <Link href={href} className="font-semibold no-underline">
        {what}
      </Link>
    </State>
    <div className="pl-[17px] text-second">
      {why} {remedy}{' '}
      {mayStand({ key }) && (
        <Link
          className="textlink whitespace-nowrap"
          href={`/watch/health?draft=sign-exception&finding=${encodeURIComponent(key)}`}
          aria-label={`Let stand: ${what}`}
        >
          let it stand
        </Link>
      )}
    </div>
  </div>
)
