import { Link } from '../../parts/Link'
import type { Pool } from '@/core/estate'
import type { PoolGrowth } from '@/core/views'
import { formatBytes } from '@/core/units'
import { layoutWords } from '../../build/pools'
import { Margin } from '../../frame'
import { State } from '../../parts/State'
import { dueRange, dueState, dueWords } from './dueWords'
import { IfNothing } from './IfNothing'
import { WaysOut } from './WaysOut'
import { WhatIf } from './WhatIf'

/** A pool by when it fills, what would give it a later day, and what comes otherwise. */
export function PoolDue({ growth }: { readonly growth: PoolGrowth }) {
  const { pool, systemName, outlook, ways } = growth
  const range = dueRange(outlook)
  const { gravity } = dueState(outlook)
  return (
    <Margin foot={<Foot pool={pool} />}>
      <h2 className="pr-12 break-words">{pool.name}</h2>
      <div className="text-second">
        {layoutWords(pool)} on{' '}
        <Link className="textlink" href={`/build/systems/${pool.systemId}`}>
          {systemName}
        </Link>
      </div>
      <div className="mt-1 flex items-baseline justify-between gap-3">
        <State gravity={gravity}>
          {outlook === undefined || 'why' in outlook
            ? dueWords(outlook)
            : `limit of ${formatBytes(BigInt(Math.round(outlook.limitBytes)))}: ${dueWords(outlook)}`}
        </State>
        {range !== undefined && <span className="mono text-second">{range}</span>}
      </div>
      {outlook !== undefined && !('why' in outlook) && (
        <>
          <WaysOut outlook={outlook} ways={ways} />
          <WhatIf key={pool.id} pool={pool} outlook={outlook} />
          <IfNothing outlook={outlook} />
        </>
      )}
    </Margin>
  )
}

const Foot = ({ pool }: { readonly pool: Pool }) => (
  <>
    <Link className="button quiet" href={`/provision?poolId=${pool.id}`}>
      Its volumes
    </Link>
    <Link className="button quiet" href={`/build/pools?sel=${pool.id}`}>
      The pool in Build
    </Link>
  </>
)
