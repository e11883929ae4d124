import Link from 'next/link'
import { suffixOf, type Drive, type Pool } from '@/core/estate'
import { formatBytes } from '@/core/units'
import { State, type Gravity } from '../../parts/State'

interface DriveTableProps {
  readonly drives: readonly Drive[]
  readonly pools: readonly Pool[]
  readonly systemId: string
  readonly selected: string | undefined
}

const gravity: Readonly<Record<Drive['state'], Gravity>> = { fine: 'fine', failing: 'soon', failed: 'now' }

/** The table behind the bays: the same drives, in rows. */
export function DriveTable({ drives, pools, systemId, selected }: DriveTableProps) {
  const nameOf = new Map(pools.map(pool => [pool.id, pool.name]))
  return (
    <>
      <h3>
        Drives <span>{drives.length}</span>
      </h3>
      <table className="plain">
        <thead>
          <tr>
            <th className="number">Bay</th>
            <th>Label</th>
            <th>Kind</th>
            <th>In</th>
            <th className="number">Hours</th>
            <th className="number">Wear</th>
            <th>State</th>
          </tr>
        </thead>
        <tbody>
          {drives.map(drive => (
            <tr key={drive.id} data-selected={drive.id === selected}>
              <td className="number">{drive.bay}</td>
              <td>
                <Link
                  data-row
                  href={`/build/systems/${systemId}?drive=${drive.id}`}
                  scroll={false}
                  className="mono no-underline"
                  title={drive.serial}
                >
                  {suffixOf(drive.serial)}
                </Link>
              </td>
              <td>
                {formatBytes(drive.capacityBytes, 'decimal')} {drive.protocol === 'NVMe' ? 'NVMe' : drive.media}
              </td>
              <td>
                {drive.poolId === null ? (
                  <span className="text-faint">no pool</span>
                ) : (
                  `${nameOf.get(drive.poolId) ?? ''}${drive.role === 'spare' ? ', spare' : `, group ${(drive.groupIndex ?? 0) + 1}`}`
                )}
              </td>
              <td className="number">{drive.powerOnHours?.toLocaleString('en') ?? '—'}</td>
              <td className="number">{drive.wearRatio === null ? '—' : `${Math.round(drive.wearRatio * 100)}%`}</td>
              <td>
                <State gravity={gravity[drive.state]}>{drive.state}</State>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
