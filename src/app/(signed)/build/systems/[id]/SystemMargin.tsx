import { Link } from '@/ui/parts/Link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { kindWords, suffixOf, type Drive } from '@/core/estate'
import { formatBitsPerSecond } from '@/core/units'
import type { SensorReading, SystemPage } from '@/core/views'
import { PoolLines } from '@/ui/build/pools'
import { Margin } from '@/ui/frame'
import { Ago } from '@/ui/parts/Ago'
import { Copied } from '@/ui/parts/Copied'
import { Facts } from '@/ui/parts/Facts'
import { ReachWhy } from '@/ui/parts/Reach'
import { State } from '@/ui/parts/State'

/** A system: what it is, its pools, controllers, ports and temperatures, and the drive that is selected. */
export function SystemMargin({ page, drive }: { readonly page: SystemPage; readonly drive: Drive | undefined }) {
  const { system, siteName, pools, sensors } = page
  return (
    <Margin
      foot={
        <>
          <NewDraft href={`/build/systems/${system.id}?draft=create-pool`}>Create a pool</NewDraft>
          <Link className="button quiet" href={`/build/systems/${system.id}?draft=forget-system`} scroll={false}>
            Take out of the estate
          </Link>
        </>
      }
    >
      <h2>
        {system.maker} {system.model}
      </h2>
      <div className="text-second">
        {siteName ?? 'no site given'} · serial <Copied text={system.serial} /> · firmware{' '}
        {system.firmware ?? 'not stated'}
      </div>
      <div className="mt-1">
        <ReachWhy of={system} />
        <div className="hint">last read {system.seenAt === null ? 'never' : <Ago at={system.seenAt} />}</div>
      </div>
      {drive !== undefined && <DriveDetails drive={drive} />}
      <h3>Pools</h3>
      {pools.length === 0 && <p className="text-second">None yet. Create one from its free drives.</p>}
      <PoolLines pools={pools} />
      <Ways page={page} />
      {sensors.length > 0 && <Temperatures sensors={sensors} />}
    </Margin>
  )
}

/** The ways into the system. */
const Ways = ({ page: { controllers, ports, drives } }: { readonly page: SystemPage }) => (
  <>
    <h3>
      Controllers and ports <span>{drives.length} drives</span>
    </h3>
    {controllers.map(controller => (
      <div key={controller.id} className="flex justify-between py-[2px]">
        <span>{controller.name}</span>
        <State gravity={controller.state === 'fine' ? 'fine' : 'now'}>{controller.state}</State>
      </div>
    ))}
    {ports.map(port => (
      <div key={port.id} className="flex justify-between gap-3 py-[2px]">
        <span>
          {port.name} <span className="text-second">{formatBitsPerSecond(port.speedBitsPerSecond)}</span>
        </span>
        <span className="mono">{port.address ?? ''}</span>
        <State gravity={port.isUp ? 'fine' : 'now'}>{port.isUp ? 'up' : 'down'}</State>
      </div>
    ))}
  </>
)

const Temperatures = ({ sensors }: { readonly sensors: readonly SensorReading[] }) => (
  <>
    <h3>Temperatures</h3>
    {sensors.map(({ name, reading, unit, cautionAt }) => (
      <div key={name} className="flex justify-between gap-3 py-[2px]">
        <span className="min-w-0 truncate">{name}</span>
        <span className="mono whitespace-nowrap">
          {reading.toFixed(1)} {unit === 'Cel' ? '°C' : unit}
          {cautionAt === null ? '' : <span className="text-faint"> of {cautionAt}</span>}
        </span>
      </div>
    ))}
  </>
)

const DriveDetails = ({ drive }: { readonly drive: Drive }) => (
  <>
    <h3>Drive {suffixOf(drive.serial)}</h3>
    <Facts
      of={[
        ['Bay', `${drive.bay}`],
        ['Kind', `${kindWords(drive)}, ${drive.model}`],
        ['Serial number', drive.serial],
        ['WWN', drive.wwn ?? 'not stated'],
        ['Firmware', drive.firmware ?? 'not stated'],
        ['Hours', drive.powerOnHours === null ? 'not stated' : drive.powerOnHours.toLocaleString('en')],
        ['Wear', drive.wearRatio === null ? 'none' : `${(drive.wearRatio * 100).toFixed(0)}%`],
        ['State', `${drive.state}, ${drive.role}`],
      ]}
    />
  </>
)
