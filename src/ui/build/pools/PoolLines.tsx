import { Link } from '../../parts/Link'
import type { Pool } from '@/core/estate'
import { formatBytes } from '@/core/units'

/** Pools, a line each, with what is written of what they give. */
export const PoolLines = ({ pools }: { readonly pools: readonly Pool[] }) =>
  pools.map(({ id, name, writtenBytes, usableBytes }) => (
    <div key={id} className="flex justify-between gap-3 border-b border-rule-fine py-1">
      <Link href={`/build/pools?sel=${id}`} className="min-w-0 truncate font-semibold no-underline">
        {name}
      </Link>
      <span className="mono">
        {formatBytes(writtenBytes)} of {formatBytes(usableBytes)}
      </span>
    </div>
  ))
