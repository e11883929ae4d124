import Link from 'next/link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { keptDraft } from '@/app/server/keptDraft'
import { suggestedRole } from '@/core/clusters'
import { byId, intakeState, suffixOf, type Drive, type Enclosure, type Node, type System } from '@/core/estate'
import type { ChangeRecord } from '@/core/views'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import {
  drives as allDrives,
  enclosures as allEnclosures,
  nodesOfAll,
  pools as allPools,
  systems as allSystems,
} from '@/records/queries'
import { groupsOf } from '@/ui/build/bayField'
import { KeyedDraft } from '@/ui/drafts'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import {
  driveKinds,
  EraseDrive,
  EstateBays,
  IntakeList,
  IntakeMargin,
  kindWords,
  KindTotals,
  SetLocateLight,
  type IntakeRow,
} from '@/ui/build/intake'
import { Facts } from '@/ui/parts/Facts'
import { State } from '@/ui/parts/State'
import { buildParts } from '../parts'

export const metadata = { title: 'Drives' }

type Params = Readonly<Partial<Record<'state' | 'kind' | 'drive' | 'draft' | 'change', string>>>

export default async function Page({ searchParams }: { readonly searchParams: Promise<Params> }) {
  const params = await onlyTexts(searchParams)
  const { scope } = await reader()
  const [drives, systems, enclosures, nodes, pools] = await Promise.all([
    allDrives(scope, null),
    allSystems(scope),
    allEnclosures(scope),
    nodesOfAll(scope),
    allPools(scope),
  ])
  const shown = drives.filter(
    drive =>
      (params.state === undefined || intakeState(drive) === params.state) &&
      (params.kind === undefined || kindWords(drive) === params.kind),
  )
  const rows = rowsOf(shown, drives, systems, enclosures, nodes)
  const foreign = drives.filter(drive => intakeState(drive) === 'foreign')
  const free = drives.filter(drive => intakeState(drive) === 'unassigned')
  const query = new URLSearchParams(
    Object.entries(params).filter(([name]) => name === 'state' || name === 'kind') as [string, string][],
  )
  const href = `/build/drives?${query.size === 0 ? '' : `${query}&`}`
  const intakeSystems = systems.map(({ id, name }) => ({
    id,
    name,
    isRow: nodes.some(node => node.systemId === id),
    clusterPoolId: pools.find(pool => pool.systemId === id && pool.failureDomain !== null)?.id ?? null,
  }))
  const systemOf = (enclosure: Enclosure) => byId(systems, enclosure.systemId)
  const inShown = new Set(shown.map(drive => drive.enclosureId))
  const groups = groupsOf(
    enclosures.filter(enclosure => inShown.has(enclosure.id)),
    drives,
    enclosure =>
      nodes.some(node => node.enclosureId === enclosure.id)
        ? enclosure.name
        : `${systemOf(enclosure)?.name ?? ''}, ${enclosure.name}`,
    own => countWords(own.length, 'drive', 'drives'),
  )
  return (
    <Frame margin={await margin(params, drives, systems, nodes, rows)}>
      <Title words="Drives">
        <SubSections of={buildParts} />
      </Title>
      <p className="sentence">
        <b>
          {countAtStart(drives.length, 'drive stands', 'drives stand')} in{' '}
          {countWords(enclosures.length, 'enclosure', 'enclosures')}; {countWords(free.length, 'is', 'are')} free.
        </b>{' '}
        {foreign.length === 0
          ? 'None carries anything from an earlier use.'
          : `${countAtStart(foreign.length, 'carries', 'carry')} what an earlier use has left.`}
      </p>
      <KindTotals kinds={driveKinds(drives)} />
      {(params.state !== undefined || params.kind !== undefined) && (
        <p className="mt-2 mb-0">
          Shown: {[params.kind, params.state].filter(Boolean).join(', ')}, {countWords(shown.length, 'drive', 'drives')}
          .{' '}
          <Link className="textlink" href="/build/drives">
            All of them
          </Link>
        </p>
      )}
      <IntakeList rows={rows} systems={intakeSystems} selected={params.drive} />
      <h3>
        Bays across systems <span>the last four characters stand on every drive</span>
      </h3>
      <EstateBays groups={groups} selected={params.drive} href={href} />
    </Frame>
  )
}

function rowsOf(
  shown: readonly Drive[],
  drives: readonly Drive[],
  systems: readonly System[],
  enclosures: readonly Enclosure[],
  nodes: readonly Node[],
): IntakeRow[] {
  const byNode = new Map<string, Drive[]>()
  for (const drive of drives)
    if (drive.nodeId !== null && !drive.isBoot) byNode.set(drive.nodeId, [...(byNode.get(drive.nodeId) ?? []), drive])
  const nameOf = new Map(systems.map(system => [system.id, system.name]))
  const enclosureName = new Map(enclosures.map(enclosure => [enclosure.id, enclosure.name]))
  const nodeName = new Map(nodes.map(node => [node.id, node.name]))
  return shown.map(drive => ({
    drive,
    systemName: nameOf.get(drive.systemId) ?? '',
    place: `${nodeName.get(drive.nodeId ?? '') ?? enclosureName.get(drive.enclosureId ?? '') ?? ''}, bay ${drive.bay}`,
    suggestion: drive.nodeId === null || drive.isBoot ? null : suggestedRole(drive, byNode.get(drive.nodeId) ?? []),
  }))
}

/** The drives whose lights a draft is about: those that it was begun with. */
function lightDrives(drives: readonly Drive[], drive: Drive, kept: ChangeRecord | undefined): readonly Drive[] {
  const ids = kept?.intent['driveIds']
  return Array.isArray(ids) ? drives.filter(each => ids.includes(each.id)) : [drive]
}

async function margin(
  params: Params,
  drives: readonly Drive[],
  systems: readonly System[],
  nodes: readonly Node[],
  rows: readonly IntakeRow[],
) {
  const drive = byId(drives, params.drive)
  const { draft, change } = params
  const kept = draft === undefined ? undefined : await keptDraft(change, draft)
  if (drive !== undefined && (draft === 'erase-drive' || draft === 'set-locate-light')) {
    return (
      <KeyedDraft id={change} of={`${draft}/${drive.id}`}>
        {draft === 'erase-drive' ? (
          <EraseDrive drive={drive} kept={kept} />
        ) : (
          <SetLocateLight drives={lightDrives(drives, drive, kept)} kept={kept} />
        )}
      </KeyedDraft>
    )
  }
  if (drive === undefined) return <IntakeMargin drives={drives} />
  const state = intakeState(drive)
  const node = byId(nodes, drive.nodeId)
  const suggestion = rows.find(row => row.drive.id === drive.id)?.suggestion ?? null
  const lines: readonly (readonly [string, string])[] = [
    [
      'Where',
      `${byId(systems, drive.systemId)?.name ?? ''}${node === undefined ? '' : `, ${node.name}`}, bay ${drive.bay}`,
    ],
    ['Kind', `${kindWords(drive)}, ${drive.model}`],
    ['Serial number', drive.serial],
    ['Firmware', drive.firmware ?? 'not stated'],
    ['Full writes a day', drive.driveWritesPerDay === null ? 'not stated' : `${drive.driveWritesPerDay}`],
    ['Hours', drive.powerOnHours === null ? 'not stated' : drive.powerOnHours.toLocaleString('en')],
  ]
  const base = `/build/drives?drive=${drive.id}`
  return (
    <Margin
      foot={
        <>
          {state === 'foreign' || state === 'unassigned' ? (
            <NewDraft href={`${base}&draft=erase-drive`}>Erase</NewDraft>
          ) : null}
          <Link className="button quiet" href={`${base}&draft=set-locate-light`}>
            Light {drive.isLit ? 'off' : 'on'}
          </Link>
          <Link className="button quiet" href={`/build/systems/${drive.systemId}?drive=${drive.id}`}>
            Its system
          </Link>
        </>
      }
    >
      <h2>Drive {suffixOf(drive.serial)}</h2>
      <State gravity={state === 'failed' ? 'now' : state === 'failing' || state === 'foreign' ? 'soon' : 'fine'}>
        {state}
        {drive.isLit ? ', light on' : ''}
      </State>
      <Facts of={lines} />
      {drive.leftOver !== null && (
        <>
          <h3>Left over from earlier use</h3>
          <p className="mt-0">
            From {drive.leftOver.system ?? 'an unknown system'}
            {drive.leftOver.lastUsedAt === null ? '' : `, last used ${drive.leftOver.lastUsedAt.slice(0, 10)}`}:
          </p>
          <ul className="m-0 list-disc pl-4">
            {drive.leftOver.partitions.map(each => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        </>
      )}
      {suggestion !== null && (
        <>
          <h3>Best for</h3>
          <p className="mt-0">
            <b>{suggestion.role === 'cache' ? 'Cache' : 'Capacity'}.</b> {suggestion.why}
          </p>
        </>
      )}
      <p className="hint">{formatBytes(drive.capacityBytes)}</p>
    </Margin>
  )
}
