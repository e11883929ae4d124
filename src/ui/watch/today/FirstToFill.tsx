import type { DailyLevels } from '@/core/metrics'
import type { PoolFilling } from '@/core/views'
import { GrowthPicture } from '../../drawings/growth/GrowthPicture'
import { Link } from '../../parts/Link'
import { dueWords } from '../capacity/dueWords'

interface FirstToFillProps {
  /** In the order in which they fill. */
  readonly pools: readonly PoolFilling[]
  readonly levels: DailyLevels
}

/** The pool that fills first, drawn, and the next ones in words. */
export function FirstToFill({ pools, levels }: FirstToFillProps) {
  const [first, ...others] = pools
  if (first?.outlook === undefined) return null
  const next = others.filter(({ outlook }) => outlook !== undefined && !('why' in outlook)).slice(0, 2)
  return (
    <figure className="m-0">
      <h3>
        What fills, and when <span>by day, then P10–P90</span>
      </h3>
      <GrowthPicture name={first.pool.name} levels={levels} outlook={first.outlook} />
      <figcaption className="mt-1">
        {[first, ...next].map(({ pool, outlook }) => (
          <div key={pool.id} className="flex justify-between gap-3">
            <Link data-row href={`/watch?sel=${pool.id}`} className="truncate no-underline" data-hint={pool.name}>
              {pool.name}
            </Link>
            <span className="shrink-0 text-second">{dueWords(outlook)}</span>
          </div>
        ))}
      </figcaption>
    </figure>
  )
}
