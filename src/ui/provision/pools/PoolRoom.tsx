import Link from 'next/link'
import { provisionableBytes, type Pool } from '@/core/estate'
import { formatBytes } from '@/core/units'
import { State } from '../../parts/State'

const tight = 0.8
const full = 0.9

/** How far a pool is filled, as a ratio of what volumes can have of it. */
function fillOf(pool: Pool): number {
  const capacity = provisionableBytes(pool)
  return capacity <= 0n ? 1 : Number(pool.writtenBytes) / Number(capacity)
}

/** Where there is room: pools with what is left to write in them, the roomiest first. */
export function PoolRoom({ pools }: { readonly pools: readonly Pool[] }) {
  const sorted = [...pools].sort((a, b) => fillOf(a) - fillOf(b))
  return (
    <>
      <h3>
        Where there is room <span>left to write</span>
      </h3>
      {sorted.length === 0 && <p className="mt-0 text-second">No pool has been built yet.</p>}
      {sorted.map(pool => (
        <Room key={pool.id} pool={pool} />
      ))}
    </>
  )
}

function Room({ pool }: { readonly pool: Pool }) {
  const ratio = fillOf(pool)
  const left = provisionableBytes(pool) - pool.writtenBytes
  const words = `${(ratio * 100).toFixed(0)}% full`
  return (
    <Link
      href={`/provision?draft=provision-volume&pool=${pool.id}`}
      scroll={false}
      className="block border-b border-rule-fine py-[6px] no-underline"
      title={`Provision from ${pool.name}`}
    >
      <span className="flex items-baseline justify-between gap-3">
        <span className="min-w-0 truncate font-semibold">{pool.name}</span>
        <span className="mono shrink-0">{formatBytes(left > 0n ? left : 0n)}</span>
      </span>
      <span className="mt-[3px] block h-[9px] border border-rule bg-paper">
        <span
          className="block h-full"
          style={{
            background: ratio >= full ? 'var(--soon)' : 'var(--d1)',
            width: `${Math.min(100, ratio * 100)}%`,
          }}
        />
      </span>
      <span className="mt-[2px] block text-sm text-second">
        {pool.state !== 'fine' ? (
          <State gravity="now">{pool.state}</State>
        ) : ratio >= tight ? (
          <State gravity="soon">{words}</State>
        ) : (
          words
        )}
        , {formatBytes(pool.provisionedBytes)} promised
      </span>
    </Link>
  )
}
