import Link from 'next/link'
import { kindWords, suffixOf, type Drive, type Pool } from '@/core/estate'
import { State, type Gravity } from '../../parts/State'
import { Table, type Column } from '../../parts/Table'

interface DriveTableProps {
  readonly drives: readonly Drive[]
  readonly pools: readonly Pool[]
  readonly systemId: string
  readonly selected: string | undefined
}

const gravity: Readonly<Record<Drive['state'], Gravity>> = { fine: 'fine', failing: 'soon', failed: 'now' }

/** The table behind the bays: the same drives, in rows. */
export function DriveTable({ drives, pools, systemId, selected }: DriveTableProps) {
  return (
    <>
      <h3>
        Drives <span>{drives.length}</span>
      </h3>
      <Table
        rows={drives}
        keyOf={drive => drive.id}
        isSelected={drive => drive.id === selected}
        columns={columnsFor(pools, systemId)}
      />
    </>
  )
}

function columnsFor(pools: readonly Pool[], systemId: string): readonly Column<Drive>[] {
  const nameOf = new Map(pools.map(pool => [pool.id, pool.name]))
  const useOf = ({ poolId, role, groupIndex }: Drive) =>
    poolId === null ? (
      <span className="text-faint">no pool</span>
    ) : (
      `${nameOf.get(poolId) ?? ''}${role === 'spare' ? ', spare' : `, group ${(groupIndex ?? 0) + 1}`}`
    )
  return [
    { head: 'Bay', cell: drive => drive.bay, isNumber: true },
    {
      head: 'Label',
      cell: ({ id, serial }) => (
        <Link
          data-row
          href={`/build/systems/${systemId}?drive=${id}`}
          scroll={false}
          className="mono no-underline"
          data-hint={serial}
        >
          {suffixOf(serial)}
        </Link>
      ),
    },
    { head: 'Kind', cell: kindWords },
    { head: 'In', cell: useOf },
    { head: 'Hours', cell: drive => drive.powerOnHours?.toLocaleString('en') ?? '—', isNumber: true },
    {
      head: 'Wear',
      cell: ({ wearRatio }) => (wearRatio === null ? '—' : `${Math.round(wearRatio * 100)}%`),
      isNumber: true,
    },
    { head: 'State', cell: ({ state }) => <State gravity={gravity[state]}>{state}</State> },
  ]
}
