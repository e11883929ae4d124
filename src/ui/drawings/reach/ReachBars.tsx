import { Hatch } from '../../parts/Hatch'
import type { ReachAxis } from './reachBlocks'

const [width, height] = [200, 14]
const colours = { rw: 'var(--d1)', ro: 'var(--d4)', none: 'var(--faint)' } as const

interface ReachBarsProps {
  readonly axis: ReachAxis
  readonly index: number
  readonly access: keyof typeof colours
}

/** For which addresses a rule is; hatched where another rule decides. */
export function ReachBars({ axis, index, access }: ReachBarsProps) {
  const bar = axis.bars.find(each => each.index === index)
  if (bar === undefined) return null
  const at = (place: number) => place * width
  const taking = axis.bars.filter(each => bar.reach.takenBy.includes(each.index))
  const wide = (from: number, to: number) => Math.max(3, at(to) - at(from))
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="block w-full" aria-hidden>
      <Hatch id={`reach-${index}`} colour={colours[access]} />
      <rect
        x={at(bar.from)}
        width={wide(bar.from, bar.to)}
        y={2}
        height={10}
        fill={bar.reach.isNeverReached ? `url(#reach-${index})` : colours[access]}
        stroke={colours[access]}
        strokeWidth={0.75}
      />
      {!bar.reach.isNeverReached &&
        taking.map(each => (
          <rect
            key={each.index}
            x={at(each.from)}
            width={wide(each.from, each.to)}
            y={2}
            height={10}
            fill={`url(#reach-${index})`}
          />
        ))}
    </svg>
  )
}
