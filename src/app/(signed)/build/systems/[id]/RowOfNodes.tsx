import { reader } from '@/app/server/guard'
import { packedOnce } from '@/app/server/packedOnce'
import { keptDraft } from '@/app/server/keptDraft'
import { isSpreadScheme, schemeWords } from '@/core/clusters'
import { estateLadder, intakeState, poolLadder, unassignedBytes, type Drive, type Node, type Pool } from '@/core/estate'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import type { SystemPage } from '@/core/views'
import { changesAbout } from '@/records/changes'
import { ClusterChoice, DraftedCluster, NodeBays } from '@/ui/build/clusters'
import { ChangeLines } from '@/ui/changes'
import { Ladder, rungText } from '@/ui/drawings/ladder'
import { KeyedDraft } from '@/ui/drafts'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { buildParts } from '../../parts'
import { NodeTable } from './NodeTable'
import { rowMargin, type RowParams } from './rowMargin'

interface RowProps {
  readonly page: SystemPage
  readonly nodes: readonly Node[]
  readonly params: RowParams
}

const choosing = (draft: string | undefined) =>
  draft === 'form-cluster' || draft === 'grow-cluster'
    ? ('free' as const)
    : draft === 'shrink-cluster'
      ? ('members' as const)
      : undefined

/** A row of nodes: their bays together, the cluster that they form, and what is wrong with it. */
export async function RowOfNodes({ page, nodes, params }: RowProps) {
  const { system, enclosures, drives } = page
  const { draft, change, drive } = params
  const kept = draft === undefined ? undefined : await keptDraft(change, draft)
  const mode = choosing(draft)
  const initial = Array.isArray(kept?.intent['driveIds']) ? (kept.intent['driveIds'] as string[]) : []
  return (
    <KeyedDraft id={mode === undefined ? 'none' : change} of={`${system.id}/${draft ?? ''}`}>
      <ClusterChoice initial={initial}>
        <Frame margin={await rowMargin(page, nodes, params, kept)}>
          <Title words={system.clusterName ?? system.name}>
            <SubSections of={buildParts} />
          </Title>
          <Sentence page={page} nodes={nodes} />
          <NodeBays
            systemId={system.id}
            nodes={nodes}
            enclosures={enclosures}
            drives={packedOnce(drives)}
            highlighted={drive}
            choosing={mode}
          />
          {draft === 'form-cluster' && <DraftedCluster />}
          {mode === undefined && <Below page={page} nodes={nodes} />}
        </Frame>
      </ClusterChoice>
    </KeyedDraft>
  )
}

const freeOf = (drives: readonly Drive[]) => drives.filter(each => intakeState(each) === 'unassigned')
const spreadPool = (pools: readonly Pool[]) => pools.find(pool => pool.failureDomain !== null)

function Sentence({ page: { system, drives, pools }, nodes }: Pick<RowProps, 'page' | 'nodes'>) {
  const free = freeOf(drives).length
  const cluster = spreadPool(pools)
  const members = new Set(drives.filter(each => each.poolId !== null).map(each => each.nodeId)).size
  return (
    <p className="sentence">
      <b>
        {system.clusterName === null
          ? `${countAtStart(nodes.length, 'bare node', 'bare nodes')} with ${countWords(drives.length, 'drive', 'drives')}.`
          : `${countAtStart(members, 'node of', 'nodes of')} ${system.name} form the cluster ${system.clusterName}.`}
      </b>{' '}
      {cluster !== undefined && isSpreadScheme(cluster.scheme)
        ? `${schemeWords(cluster.scheme)} over ${cluster.failureDomain ?? 'node'}s gives ${formatBytes(cluster.usableBytes)} usable; ${countWords(free, 'drive is', 'drives are')} free.`
        : `${countAtStart(free, 'drive is', 'drives are')} free to form a cluster from.`}
    </p>
  )
}

/** What stands below the bays: the cluster's space, its nodes, and what was changed last. */
async function Below({ page: { system, drives, pools }, nodes }: Pick<RowProps, 'page' | 'nodes'>) {
  const { scope } = await reader()
  const cluster = spreadPool(pools)
  const rungs = (pool: Pool) =>
    freeOf(drives).length === 0 ? poolLadder(pool) : estateLadder(pools, unassignedBytes(drives))
  return (
    <>
      {cluster !== undefined && <Ladder title="From raw to free" rungs={rungs(cluster).map(rungText)} width={620} />}
      <NodeTable nodes={nodes} drives={drives} systemId={system.id} />
      <h3>Latest changes</h3>
      <ChangeLines changes={await changesAbout(scope, system.id, 6)} none="None has touched it yet." />
    </>
  )
}
