import type { Pool } from '@/core/estate'
import { State } from '../../parts/State'
import { fillOf } from './poolWords'

/** How full a pool is and how much of it is promised. */
export function FillMark({ pool }: { readonly pool: Pool }) {
  const written = Math.min(1, fillOf(pool, pool.writtenBytes))
  const provisioned = fillOf(pool, pool.provisionedBytes)
  return (
    <span className="inline-flex items-center gap-2">
      <svg
        width={110}
        height={12}
        role="img"
        aria-label={`${(written * 100).toFixed(0)}% written, ${(provisioned * 100).toFixed(0)}% promised`}
      >
        <rect x={0.5} y={1.5} width={109} height={9} fill="none" stroke="var(--rule)" />
        <rect
          x={1}
          y={2}
          width={Math.min(1, provisioned) * 108}
          height={8}
          fill={provisioned > 1 ? 'var(--soon)' : 'var(--d4)'}
          opacity={0.3}
        />
        <rect x={1} y={2} width={written * 108} height={8} fill={written > 0.9 ? 'var(--soon)' : 'var(--d1)'} />
      </svg>
      <span className="mono">
        {(written * 100).toFixed(0)}% / {(provisioned * 100).toFixed(0)}%
      </span>
    </span>
  )
}

/** How a pool stands, in a word. */
export function PoolState({ pool }: { readonly pool: Pool }) {
  if (pool.state === 'starting') return <State gravity="unknown">initialising</State>
  if (pool.state === 'degraded' || pool.state === 'failed') return <State gravity="now">{pool.state}</State>
  return fillOf(pool, pool.writtenBytes) > 0.9 ? (
    <State gravity="soon">nearly full</State>
  ) : (
    <State gravity="fine">in order</State>
  )
}
