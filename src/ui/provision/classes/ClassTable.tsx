import type { ServiceClass } from '@/core/estate'
import { retentionRules } from '@/core/retention'
import { ruleInWords } from '@/core/schedule'
import { formatBytes } from '@/core/units'
import { RowLink, Table, type Column } from '../../parts/Table'

/** A class as its list shows it; bytes as text, since it goes to the browser as it is. */
interface ClassRow {
  readonly serviceClass: ServiceClass
  readonly volumes: number
  readonly size: string
}

const none = <span className="text-faint">—</span>
const or = (words: string | null) => words ?? none

/** How many a class keeps of each sort: `2 last, 24 hourly`. */
export const keptInWords = ({ retention }: Pick<ServiceClass, 'retention'>): string | null => {
  const kept = retentionRules.flatMap(rule => {
    const count = retention[rule] ?? 0
    return count === 0 ? [] : [`${count} ${rule === 'keepLast' ? 'last' : rule}`]
  })
  return kept.length === 0 ? null : kept.join(', ')
}

const columns: readonly Column<ClassRow>[] = [
  {
    head: 'Class',
    cell: ({ serviceClass: { id, name } }) => <RowLink href={`/provision/classes?sel=${id}`}>{name}</RowLink>,
  },
  {
    head: 'Survives',
    cell: ({ serviceClass: { lossesSurvived } }) =>
      or(lossesSurvived === null ? null : `${lossesSurvived} loss${lossesSurvived === 1 ? '' : 'es'}`),
  },
  { head: 'Media', cell: ({ serviceClass: { media } }) => media },
  {
    head: 'P95',
    cell: ({ serviceClass: { latencyMilliseconds } }) =>
      or(latencyMilliseconds === null ? null : `${latencyMilliseconds} ms`),
    isNumber: true,
  },
  {
    head: 'Stays free',
    cell: ({ serviceClass: { headroomRatio } }) =>
      or(headroomRatio === null ? null : `${Math.round(headroomRatio * 100)}%`),
    isNumber: true,
  },
  {
    head: 'Snapshots',
    cell: ({ serviceClass }) =>
      serviceClass.snapshotRule === null ? (
        none
      ) : (
        <>
          <span title={serviceClass.snapshotRule}>{ruleInWords(serviceClass.snapshotRule)}</span>
          <div className="text-sm text-second">keeps {keptInWords(serviceClass)}</div>
        </>
      ),
  },
  {
    head: 'Volumes',
    cell: ({ volumes }) => <span className="mono">{volumes.toLocaleString('en')}</span>,
    isNumber: true,
  },
  { head: 'Size', cell: ({ size }) => <span className="mono">{formatBytes(BigInt(size))}</span>, isNumber: true },
]

interface ClassTableProps {
  readonly rows: readonly ClassRow[]
  readonly selected: string | undefined
}

/** All service classes with what they promise, and how much stands under each. */
export const ClassTable = ({ rows, selected }: ClassTableProps) => (
  <Table
    rows={rows}
    columns={columns}
    keyOf={({ serviceClass }) => serviceClass.id}
    isSelected={({ serviceClass }) => serviceClass.id === selected}
  />
)
