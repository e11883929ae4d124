import Link from 'next/link'
import { notFound } from 'next/navigation'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { isUuid } from '@/core/input'
import { onlyTexts } from '@/app/server/onlyTexts'
import { keptDraft } from '@/app/server/keptDraft'
import { poolLadder, suffixOf, unassignedBytes, estateLadder, type Drive } from '@/core/estate'
import type { SystemPage } from '@/core/views'
import { countAtStart, countWords, formatBitsPerSecond, formatBytes } from '@/core/units'
import { rowNetwork, standingFindings, systemPage } from '@/records/queries'
import { DriveTable, SystemBays } from '@/ui/build/bays'
import { CreatePool, KeyedDraft, PoolChoice } from '@/ui/drafts'
import { FindingList } from '@/ui/watch/findings'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { Ladder, rungText } from '@/ui/drawings/ladder'
import { Ago } from '@/ui/parts/Ago'
import { Copied } from '@/ui/parts/Copied'
import { Facts } from '@/ui/parts/Facts'
import { State } from '@/ui/parts/State'
import { buildParts } from '../../parts'
import { systemDraft } from './SystemDraft'
import { RowOfNodes } from './RowOfNodes'

interface PageProps {
  readonly params: Promise<{ readonly id: string }>
  readonly searchParams: Promise<{
    readonly draft?: string
    readonly change?: string
    readonly drive?: string
    readonly pool?: string
    readonly finding?: string
  }>
}

export default async function Page({ params, searchParams }: PageProps) {
  const { id } = await params
  const { scope } = await reader()
  const { draft, change, drive, ...more } = await onlyTexts(searchParams)
  const page = isUuid(id) ? await systemPage(scope, id) : undefined
  if (page === undefined) notFound()
  const { system, enclosures, drives, pools } = page
  const { nodes } = await rowNetwork(scope, id)
  if (nodes.length > 0) return <RowOfNodes page={page} nodes={nodes} params={{ draft, change, drive, ...more }} />
  const kept = await keptDraft(change, 'create-pool')
  const isDrafting = draft === 'create-pool'
  const free = drives.filter(each => each.role === 'unassigned' && each.state === 'fine')
  const records = await standingFindings(scope, id)
  const finding = records.find(each => each.finding.key === more.finding)?.finding
  const form = isDrafting ? undefined : await systemDraft(system, { draft, change }, finding)
  const margin = isDrafting ? (
    <CreatePool system={system} drives={drives} kept={kept} />
  ) : (
    (form ?? <SystemMargin page={page} drive={drives.find(each => each.id === drive)} />)
  )
  return (
    <KeyedDraft id={isDrafting || form !== undefined ? change : 'none'} of={`${system.id}/${draft ?? ''}`}>
      <PoolChoice
        isOpen={isDrafting}
        initial={Array.isArray(kept?.intent['driveIds']) ? (kept.intent['driveIds'] as string[]) : []}
      >
        <Frame margin={margin}>
          <Title words={system.name}>
            <SubSections of={buildParts} />
          </Title>
          <p className="sentence">
            <b>{system.reach === 'answering' ? `${system.name} answers.` : `${system.name} does not answer.`}</b>{' '}
            {pools.length === 0 ? 'No pool has been built on it yet' : countAtStart(pools.length, 'pool', 'pools')}
            {free.length > 0
              ? `; ${countWords(free.length, 'drive', 'drives')} of its ${drives.length} ${free.length === 1 ? 'is' : 'are'} free for one.`
              : `; all of its ${drives.length} drives are in use.`}
          </p>
          {records.length > 0 && (
            <FindingList records={records} signHref={`/build/systems/${system.id}?draft=sign-exception&finding=`} />
          )}
          <SystemBays enclosures={enclosures} drives={drives} pools={pools} highlighted={drive} />
          {!isDrafting && pools.length > 0 && (
            <Ladder
              title="From raw to free"
              rungs={(pools.length === 1 && free.length === 0 && pools[0] !== undefined
                ? poolLadder(pools[0])
                : estateLadder(pools, unassignedBytes(drives))
              ).map(rungText)}
              width={620}
            />
          )}
          {!isDrafting && <DriveTable drives={drives} pools={pools} systemId={system.id} selected={drive} />}
        </Frame>
      </PoolChoice>
    </KeyedDraft>
  )
}

function SystemMargin({ page, drive }: { readonly page: SystemPage; readonly drive: Drive | undefined }) {
  const { system, siteName, controllers, ports, pools, sensors, drives } = page
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
        {system.reach === 'answering' ? (
          <State gravity="fine">answers at {system.address}</State>
        ) : (
          <State gravity="now">silent: {system.reachWhy}</State>
        )}
        <div className="hint">last read {system.seenAt === null ? 'never' : <Ago at={system.seenAt} />}</div>
      </div>
      {drive !== undefined && <DriveDetails drive={drive} />}
      <h3>Pools</h3>
      {pools.length === 0 && <p className="text-second">None yet. Create one from its free drives.</p>}
      {pools.map(pool => (
        <div key={pool.id} className="flex justify-between gap-3 border-b border-rule-fine py-1">
          <Link href={`/build/pools?sel=${pool.id}`} className="min-w-0 truncate font-semibold no-underline">
            {pool.name}
          </Link>
          <span className="mono">
            {formatBytes(pool.writtenBytes)} of {formatBytes(pool.usableBytes)}
          </span>
        </div>
      ))}
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
      <h3>Temperatures</h3>
      {sensors.map(sensor => (
        <div key={sensor.name} className="flex justify-between gap-3 py-[2px]">
          <span className="min-w-0 truncate">{sensor.name}</span>
          <span className="mono whitespace-nowrap">
            {sensor.reading.toFixed(1)} {sensor.unit === 'Cel' ? '°C' : sensor.unit}
            {sensor.cautionAt === null ? '' : <span className="text-faint"> of {sensor.cautionAt}</span>}
          </span>
        </div>
      ))}
    </Margin>
  )
}

function DriveDetails({ drive }: { readonly drive: Drive }) {
  const rows: readonly (readonly [string, string])[] = [
    ['Bay', `${drive.bay}`],
    [
      'Kind',
      `${formatBytes(drive.capacityBytes, 'decimal')} ${drive.protocol === 'NVMe' ? 'NVMe' : drive.media}, ${drive.model}`,
    ],
    ['Serial number', drive.serial],
    ['WWN', drive.wwn ?? 'not stated'],
    ['Firmware', drive.firmware ?? 'not stated'],
    ['Hours', drive.powerOnHours === null ? 'not stated' : drive.powerOnHours.toLocaleString('en')],
    ['Wear', drive.wearRatio === null ? 'none' : `${(drive.wearRatio * 100).toFixed(0)}%`],
    ['State', `${drive.state}, ${drive.role}`],
  ]
  return (
    <>
      <h3>Drive {suffixOf(drive.serial)}</h3>
      <Facts of={rows} />
    </>
  )
}
