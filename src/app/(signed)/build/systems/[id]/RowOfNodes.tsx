import Link from 'next/link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { keptDraft } from '@/app/server/keptDraft'
import { isSpreadScheme, schemeWords } from '@/core/clusters'
import {
  byId,
  estateLadder,
  poolLadder,
  suffixOf,
  unassignedBytes,
  type Drive,
  type Node,
  type Pool,
} from '@/core/estate'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import type { ChangeRecord, SystemPage } from '@/core/views'
import { pieceWorks, standingFindings } from '@/records/queries'
import {
  ClusterChoice,
  FormCluster,
  GrowCluster,
  NodeBays,
  DraftedCluster,
  PieceWorks,
  ShrinkCluster,
} from '@/ui/build/clusters'
import { systemDraft } from './SystemDraft'
import { KeyedDraft } from '@/ui/drafts'
import { FindingList } from '@/ui/watch/findings'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { Ladder, rungText } from '@/ui/drawings/ladder'
import { State } from '@/ui/parts/State'
import { buildParts } from '../../parts'

interface RowParams {
  readonly draft: string | undefined
  readonly change: string | undefined
  readonly drive: string | undefined
  readonly pool?: string
  readonly finding?: string
}

const choosing = (draft: string | undefined) =>
  draft === 'form-cluster' || draft === 'grow-cluster'
    ? ('free' as const)
    : draft === 'shrink-cluster'
      ? ('members' as const)
      : undefined

/** A row of nodes: their bays together, the cluster that they form, and what is wrong with it. */
export async function RowOfNodes({
  page,
  nodes,
  params,
}: {
  readonly page: SystemPage
  readonly nodes: readonly Node[]
  readonly params: RowParams
}) {
  const { system, enclosures, drives, pools } = page
  const { draft, change, drive } = params
  const kept = draft === undefined ? undefined : await keptDraft(change, draft)
  const cluster = pools.find(pool => pool.failureDomain !== null)
  const free = drives.filter(each => each.role === 'unassigned' && each.state === 'fine' && !each.isBoot)
  const mode = choosing(draft)
  const initial = Array.isArray(kept?.intent['driveIds']) ? (kept.intent['driveIds'] as string[]) : []
  return (
    <KeyedDraft id={mode === undefined ? 'none' : change} of={`${system.id}/${draft ?? ''}`}>
      <ClusterChoice initial={initial}>
        <Frame margin={await margin(page, nodes, params, kept, cluster)}>
          <Title words={system.clusterName ?? system.name}>
            <SubSections of={buildParts} />
          </Title>
          <p className="sentence">
            <b>
              {system.clusterName === null
                ? `${countAtStart(nodes.length, 'bare node', 'bare nodes')} with ${countWords(drives.length, 'drive', 'drives')}.`
                : `${countAtStart(new Set(drives.filter(each => each.poolId !== null).map(each => each.nodeId)).size, 'node of', 'nodes of')} ${system.name} form the cluster ${system.clusterName}.`}
            </b>{' '}
            {cluster !== undefined && isSpreadScheme(cluster.scheme)
              ? `${schemeWords(cluster.scheme)} over ${cluster.failureDomain ?? 'node'}s gives ${formatBytes(cluster.usableBytes)} usable; ${countWords(free.length, 'drive is', 'drives are')} free.`
              : `${countAtStart(free.length, 'drive is', 'drives are')} free to form a cluster from.`}
          </p>
          <NodeBays
            systemId={system.id}
            nodes={nodes}
            enclosures={enclosures}
            drives={drives}
            highlighted={drive}
            choosing={mode}
          />
          {draft === 'form-cluster' && <DraftedCluster />}
          {mode === undefined && cluster !== undefined && (
            <Ladder
              title="From raw to free"
              rungs={(free.length === 0 ? poolLadder(cluster) : estateLadder(pools, unassignedBytes(drives))).map(
                rungText,
              )}
              width={620}
            />
          )}
          {mode === undefined && <NodeTable nodes={nodes} drives={drives} systemId={system.id} />}
        </Frame>
      </ClusterChoice>
    </KeyedDraft>
  )
}

async function margin(
  { system, drives, pools }: SystemPage,
  nodes: readonly Node[],
  { draft, change, drive, finding: findingKey }: RowParams,
  kept: ChangeRecord | undefined,
  cluster: Pool | undefined,
) {
  const { scope } = await reader()
  if (draft === 'form-cluster') return <FormCluster system={system} nodes={nodes} drives={drives} kept={kept} />
  if (draft === 'grow-cluster' && cluster !== undefined)
    return <GrowCluster pool={cluster} nodes={nodes} drives={drives} kept={kept} />
  if (draft === 'shrink-cluster' && cluster !== undefined)
    return <ShrinkCluster pool={cluster} nodes={nodes} drives={drives} kept={kept} />
  const records = await standingFindings(scope, system.id)
  const finding = records.find(each => each.finding.key === findingKey)?.finding
  const form = await systemDraft(system, { draft, change }, finding)
  if (form !== undefined) return form
  const works = cluster === undefined ? [] : await pieceWorks(scope, cluster.id)
  const base = `/build/systems/${system.id}`
  const chosen = byId(drives, drive)
  return (
    <Margin
      foot={
        cluster === undefined ? (
          <>
            {system.clusterName === null ? (
              <NewDraft href={`${base}?draft=form-cluster`}>Form a cluster</NewDraft>
            ) : (
              <Link className="button quiet" href={`${base}?draft=dissolve-cluster`}>
                Dissolve {system.clusterName}
              </Link>
            )}
            <Link className="button quiet" href={`/build/network?system=${system.id}`}>
              Its network
            </Link>
          </>
        ) : (
          <>
            <NewDraft href={`/provision?draft=provision-volume&pool=${cluster.id}`}>Provision from it</NewDraft>
            <Link className="button quiet" href={`${base}?draft=grow-cluster`}>
              Add
            </Link>
            <Link className="button quiet" href={`${base}?draft=shrink-cluster`}>
              Take out
            </Link>
          </>
        )
      }
    >
      <h2>
        {system.maker} {system.model}
      </h2>
      <div>
        {system.reach === 'answering' ? (
          <State gravity="fine">answers at {system.address}</State>
        ) : (
          <State gravity="now">silent: {system.reachWhy}</State>
        )}
      </div>
      {chosen !== undefined && <DriveWords drive={chosen} />}
      <FindingList records={records} signHref={`${base}?draft=sign-exception&finding=`} />
      {pools.map(pool => (
        <div key={pool.id} className="mt-3 flex justify-between gap-3 border-b border-rule-fine py-1">
          <Link href={`/build/pools?sel=${pool.id}`} className="min-w-0 truncate font-semibold no-underline">
            {pool.name}
          </Link>
          <span className="mono">
            {formatBytes(pool.writtenBytes)} of {formatBytes(pool.usableBytes)}
          </span>
        </div>
      ))}
      <PieceWorks works={works} />
    </Margin>
  )
}

function DriveWords({ drive }: { readonly drive: Drive }) {
  return (
    <>
      <h3>Drive {suffixOf(drive.serial)}</h3>
      <p className="mt-0">
        Bay {drive.bay}, {formatBytes(drive.capacityBytes, 'decimal')} {drive.media}, {drive.model}, serial number{' '}
        {drive.serial}.{' '}
        <Link className="textlink" href={`/build/drives?drive=${drive.id}`}>
          All of it
        </Link>
      </p>
    </>
  )
}

function NodeTable({
  nodes,
  drives,
  systemId,
}: {
  readonly nodes: readonly Node[]
  readonly drives: readonly Drive[]
  readonly systemId: string
}) {
  return (
    <>
      <h3>
        Nodes <span>{nodes.length}</span>
      </h3>
      <div className="overflow-x-auto">
        <table className="plain">
          <thead>
            <tr>
              <th>Node</th>
              <th>Rack</th>
              <th>Firmware</th>
              <th className="number">Clock</th>
              <th>Restart service</th>
              <th className="number">Drives</th>
              <th>State</th>
            </tr>
          </thead>
          <tbody>
            {nodes.map(node => (
              <tr key={node.id}>
                <td className="font-semibold">{node.name}</td>
                <td>{node.rack ?? '—'}</td>
                <td>{node.firmware ?? '—'}</td>
                <td className="number">
                  {node.clockOffsetSeconds > 0 ? '+' : ''}
                  {node.clockOffsetSeconds.toFixed(1)} s
                </td>
                <td>
                  <Link
                    className="no-underline"
                    href={`/build/network?system=${systemId}&draft=set-restart-service&node=${node.id}`}
                  >
                    {node.isRestartServiceOn ? <State gravity="fine">on</State> : <State gravity="soon">off</State>}
                  </Link>
                </td>
                <td className="number">
                  {drives.filter(drive => drive.nodeId === node.id && drive.poolId !== null).length} of{' '}
                  {drives.filter(drive => drive.nodeId === node.id && !drive.isBoot).length} in use
                </td>
                <td>
                  {node.state === 'fine' ? (
                    <State gravity="fine">answers</State>
                  ) : (
                    <State gravity="now">does not answer</State>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}
