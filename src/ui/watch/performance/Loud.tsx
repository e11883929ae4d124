import { Link } from '../../parts/Link'
import { draftAddress, limitVolumeIntent } from '@/core/intents'
import type { VolumeLoad } from '@/core/views'
import { hourWords } from '../../parts/hourWords'
import { latencyWords } from './loadWords'

const shown = 6
/** What asks for less than that is not what makes others wait. */
const limitFrom = 0.2
const percent = (ratio: number) => `${(ratio * 100).toFixed(0)}%`

/** Who makes a pool slow in one hour: each volume's share of what its drives are asked for, and what it would be without it. */
export function Loud({ load: { loud, lookedAt, line } }: { readonly load: VolumeLoad }) {
  const { volumes, names, utilization, headroomRatio } = loud
  const loudest = volumes.filter(({ share }) => share > 0).slice(0, shown)
  const rest = volumes.length - loudest.length
  return (
    <section>
      <h3>
        Who is loud in {line.poolName} <span>{hourWords(lookedAt)}</span>
      </h3>
      <p className="mt-0">
        {loudest.length === 0
          ? 'Nothing was asked of it in that hour.'
          : `Its drives were ${percent(utilization)} busy${utilization >= 1 ? ': they were asked for more than they serve' : ''}. ${headroomWords(headroomRatio)}`}
      </p>
      <ul className="m-0 list-none p-0">
        {loudest.map(each => (
          <LoudLine
            key={each.id}
            volume={each}
            name={names[each.id]}
            href={`/watch/performance?sel=${each.id}&at=${lookedAt}`}
            isChosen={each.id === line.id}
          />
        ))}
      </ul>
      {rest > 0 && <div className="pt-1 text-xs text-second">{rest} further volumes asked for next to nothing.</div>}
    </section>
  )
}

interface LoudLineProps {
  readonly volume: VolumeLoad['loud']['volumes'][number]
  readonly name: string | undefined
  readonly href: string
  readonly isChosen: boolean
}

const LoudLine = ({ volume, name, href, isChosen }: LoudLineProps) => {
  const { id, share, utilizationWithout, othersGainSeconds } = volume
  return (
    <li className="border-b border-rule-fine py-[6px]">
      <div className="flex items-baseline justify-between gap-3">
        <Link
          href={href}
          className={`min-w-0 truncate no-underline hover:underline ${isChosen ? 'font-semibold' : ''}`}
        >
          {name}
        </Link>
        <span className="mono shrink-0">{percent(share)}</span>
      </div>
      <div
        aria-hidden
        className="my-[3px] h-[5px]"
        style={{ width: `${Math.max(0.5, share * 100)}%`, background: isChosen ? 'var(--action)' : 'var(--d4)' }}
      />
      <div className="flex justify-between gap-3 text-xs text-second">
        <span>
          {othersGainSeconds !== null
            ? `Without it every other request to the drives takes ${latencyWords(Math.max(0, othersGainSeconds))} less.`
            : `Without it they would be ${percent(utilizationWithout)} busy.`}
        </span>
        {share >= limitFrom && (
          <Link className="textlink shrink-0" href={draftAddress(limitVolumeIntent, { volumeId: id }) ?? ''}>
            limit it
          </Link>
        )}
      </div>
    </li>
  )
}

function headroomWords(ratio: number | null): string {
  if (ratio === null) return ''
  return ratio >= 0
    ? `It can be asked for ${percent(ratio)} more before answers take twice as long.`
    : 'It is past the load at which answers take twice as long.'
}
