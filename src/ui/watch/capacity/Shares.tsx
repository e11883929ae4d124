import { Link } from '../../parts/Link'
import { formatBytes, tebibytes } from '@/core/units'
import { shareBys, type Share, type ShareBy } from '@/core/views'
import { Table } from '../../parts/Table'

interface SharesProps {
  readonly by: ShareBy
  readonly shares: readonly Share[]
  /** The address of the page with another way to tell apart. */
  readonly addressOf: (by: ShareBy) => string
}

const nobody: Readonly<Record<ShareBy, string>> = {
  application: 'seen by no host',
  class: 'under no class',
  system: 'of no system',
  site: 'at no site',
}

/** Who has what is written: each volume counts once, so that the shares add up. */
export function Shares({ by, shares, addressOf }: SharesProps) {
  const whole = shares.reduce((sum, { writtenBytes }) => sum + writtenBytes, 0n)
  const ratio = (bytes: bigint) => (whole === 0n ? 0 : Number((bytes * 10_000n) / whole) / 100)
  return (
    <section>
      <h3>
        Who has it
        <span className="flex gap-3">
          {shareBys.map(each => (
            <Link
              key={each}
              href={addressOf(each)}
              scroll={false}
              aria-current={each === by ? 'true' : undefined}
              className={`no-underline ${each === by ? 'border-b border-ink text-ink' : 'hover:text-ink'}`}
            >
              by {each}
            </Link>
          ))}
        </span>
      </h3>
      <Table
        rows={shares}
        keyOf={({ id }) => id ?? ''}
        columns={[
          { head: by[0]?.toUpperCase() + by.slice(1), cell: ({ id, name }) => (id === undefined ? nobody[by] : name) },
          { head: 'Volumes', cell: ({ volumes }) => volumes.toLocaleString('en'), isNumber: true },
          { head: 'Promised, TiB', cell: ({ sizeBytes }) => tebibytes(sizeBytes), isNumber: true },
          { head: 'Written', cell: ({ writtenBytes }) => tebibytes(writtenBytes), isNumber: true },
          {
            head: `Of ${formatBytes(whole)}`,
            cell: ({ writtenBytes }) => <Percent of={ratio(writtenBytes)} />,
          },
        ]}
      />
    </section>
  )
}

const Percent = ({ of }: { readonly of: number }) => (
  <span className="flex items-center gap-2">
    <span aria-hidden className="h-2" style={{ width: `${of * 0.9}px`, background: 'var(--d1)' }} />
    <span className="mono">{of.toFixed(1)}%</span>
  </span>
)
