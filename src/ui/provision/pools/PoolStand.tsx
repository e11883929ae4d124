import { Link } from '../../parts/Link'
import { fillRatioOf, provisionableBytes, type Pool } from '@/core/estate'
import { countWords, formatBytes } from '@/core/units'
import { Mark, State, type Gravity } from '../../parts/State'
import { stand } from './stands'

const tight = 0.8
const full = 0.9
/** Those that fill first are what one looks for; all of them stand under Build. */
const most = 6

/** Where what was given out stands: each pool's capacity with what is written and promised of it, the fullest first. */
export function PoolStand({ pools }: { readonly pools: readonly Pool[] }) {
  const sorted = [...pools].sort((a, b) => fillRatioOf(b) - fillRatioOf(a))
  if (sorted.length === 0) return null
  return (
    <figure className="m-0 mb-4">
      <h3>
        Where what you gave out stands <span>what each pool can give volumes, drawn to one length</span>
      </h3>
      <div className="overflow-x-auto">
        <table className="plain w-full">
          <thead>
            <tr>
              <th>Pool</th>
              <th>
                <Legend />
              </th>
              <th className="number">Written</th>
              <th className="number">Promised</th>
              <th className="number">Of</th>
              <th className="number">Left to write</th>
            </tr>
          </thead>
          <tbody>
            {sorted.slice(0, most).map(pool => (
              <Stand key={pool.id} pool={pool} />
            ))}
          </tbody>
        </table>
      </div>
      {sorted.length > most && (
        <p className="hint mt-1">
          <Link href="/build/pools">{countWords(sorted.length - most, 'other pool', 'other pools')}</Link> are less
          full.
        </p>
      )}
    </figure>
  )
}

const Legend = () => (
  <span className="flex items-center gap-3 font-normal">
    <span className="inline-flex items-center gap-[5px]">
      <i className="h-[4px] w-4 bg-ink" /> written
    </span>
    <span className="inline-flex items-center gap-[5px]">
      <i className="h-[9px] w-4 border border-second" /> promised
    </span>
  </span>
)

function gravityOf(pool: Pool): Gravity {
  if (pool.state === 'degraded' || pool.state === 'failed') return 'now'
  const ratio = fillRatioOf(pool)
  return ratio >= full ? 'now' : ratio >= tight ? 'soon' : 'fine'
}

function Stand({ pool }: { readonly pool: Pool }) {
  const forVolumesBytes = provisionableBytes(pool)
  const leftBytes = forVolumesBytes - pool.writtenBytes
  const leftWords = formatBytes(leftBytes > 0n ? leftBytes : 0n)
  const gravity = gravityOf(pool)
  return (
    <tr>
      <td className="max-w-[150px]">
        <Link
          href={`/provision?draft=provision-volume&pool=${pool.id}`}
          scroll={false}
          title={`Provision from ${pool.name}`}
          className="block truncate font-semibold no-underline"
        >
          {pool.name}
        </Link>
      </td>
      <td>
        <Bar pool={pool} gravity={gravity} />
      </td>
      <td className="number mono">{formatBytes(pool.writtenBytes)}</td>
      <td className="number mono">{formatBytes(pool.provisionedBytes)}</td>
      <td className="number mono">{formatBytes(forVolumesBytes > 0n ? forVolumesBytes : 0n)}</td>
      <td className="number mono whitespace-nowrap">
        {gravity === 'fine' ? (
          leftWords
        ) : (
          <State gravity={gravity}>{pool.state === 'fine' ? leftWords : pool.state}</State>
        )}
      </td>
    </tr>
  )
}

const height = 16
const colours: Readonly<Record<Gravity, string>> = {
  fine: 'var(--ink)',
  soon: 'var(--soon)',
  now: 'var(--now)',
  note: 'var(--ink)',
  unknown: 'var(--ink)',
}

/** Written as a line in what is promised, and both beside what the pool can give. */
function Bar({ pool, gravity }: { readonly pool: Pool; readonly gravity: Gravity }) {
  const { capacity, written, promised, isCut } = stand(pool)
  const filled = `${(fillRatioOf(pool) * 100).toFixed(0)}% written`
  return (
    <span className="flex items-center gap-2" title={filled}>
      <svg
        viewBox={`0 0 241 ${height}`}
        role="img"
        aria-label={filled}
        className="block h-4 w-full min-w-[150px]"
        preserveAspectRatio="none"
      >
        <rect x={0.5} y={0.5} width={capacity} height={height - 1} fill="var(--sheet)" stroke="var(--rule)" />
        <rect
          x={0.5}
          y={3.5}
          width={promised}
          height={height - 7}
          fill={promised > capacity ? 'color-mix(in srgb, var(--soon) 22%, transparent)' : 'var(--rule-fine)'}
          stroke="var(--second)"
          strokeDasharray={isCut ? '3 2' : undefined}
          vectorEffect="non-scaling-stroke"
        />
        <rect x={0.5} y={6.5} width={Math.max(written, 0.5)} height={3.5} fill={colours[gravity]} />
        <line x1={capacity} x2={capacity} y1={0} y2={height} stroke="var(--now)" vectorEffect="non-scaling-stroke" />
      </svg>
      {isCut && <Mark gravity="soon" />}
    </span>
  )
}
