import { packedOnce } from '@/app/server/packedOnce'
import { Link } from '@/ui/parts/Link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { byId, kindWords, suffixOf, type Drive, type Node, type Pool, type System } from '@/core/estate'
import type { ShownChange, FindingRecord, SystemPage } from '@/core/views'
import { pieceWorks, standingFindings } from '@/records/queries'
import { FormCluster, GrowCluster, PieceWorks, ShrinkCluster } from '@/ui/build/clusters'
import { PoolLines } from '@/ui/build/pools'
import { Margin } from '@/ui/frame'
import { ReachWhy } from '@/ui/parts/Reach'
import { FindingList } from '@/ui/watch/findings'
import { systemDraft } from './SystemDraft'

export interface RowParams {
  readonly draft: string | undefined
  readonly change: string | undefined
  readonly drive: string | undefined
  readonly pool?: string
  readonly finding?: string
}

/** What is drafted about a row of nodes, or what stands in its way. */
export async function rowMargin(
  page: SystemPage,
  nodes: readonly Node[],
  params: RowParams,
  kept: ShownChange | undefined,
) {
  const { system, drives, pools } = page
  const { draft, change } = params
  const cluster = pools.find(pool => pool.failureDomain !== null)
  if (draft === 'form-cluster')
    return <FormCluster system={system} nodes={nodes} drives={packedOnce(drives)} kept={kept} />
  if (draft === 'grow-cluster' && cluster !== undefined)
    return <GrowCluster pool={cluster} nodes={nodes} drives={packedOnce(drives)} kept={kept} />
  if (draft === 'shrink-cluster' && cluster !== undefined)
    return <ShrinkCluster pool={cluster} nodes={nodes} drives={packedOnce(drives)} kept={kept} />
  const records = await standingFindings((await reader()).scope, system.id)
  const finding = records.find(each => each.finding.key === params.finding)?.finding
  const form = await systemDraft(system, { draft, change }, finding)
  return form ?? <RowMargin page={page} cluster={cluster} records={records} drive={byId(drives, params.drive)} />
}

interface RowMarginProps {
  readonly page: SystemPage
  readonly cluster: Pool | undefined
  readonly records: readonly FindingRecord[]
  readonly drive: Drive | undefined
}

async function RowMargin({ page: { system, pools }, cluster, records, drive }: RowMarginProps) {
  const works = cluster === undefined ? [] : await pieceWorks((await reader()).scope, cluster.id)
  return (
    <Margin
      foot={cluster === undefined ? <WithoutPool system={system} /> : <WithPool system={system} pool={cluster} />}
    >
      <h2>
        {system.maker} {system.model}
      </h2>
      <ReachWhy of={system} />
      {drive !== undefined && <DriveWords drive={drive} />}
      <FindingList records={records} />
      <div className="mt-3">
        <PoolLines pools={pools} />
      </div>
      <PieceWorks works={works} />
    </Margin>
  )
}

const WithoutPool = ({ system }: { readonly system: System }) => (
  <>
    {system.clusterName === null ? (
      <NewDraft href={`/build/systems/${system.id}?draft=form-cluster`}>Form a cluster</NewDraft>
    ) : (
      <Link className="button quiet" href={`/build/systems/${system.id}?draft=dissolve-cluster`}>
        Dissolve {system.clusterName}
      </Link>
    )}
    <Link className="button quiet" href={`/build/network?system=${system.id}`}>
      Its network
    </Link>
  </>
)

const WithPool = ({ system, pool }: { readonly system: System; readonly pool: Pool }) => (
  <>
    <NewDraft href={`/provision?draft=provision-volume&pool=${pool.id}`}>Provision from it</NewDraft>
    <Link className="button quiet" href={`/build/systems/${system.id}?draft=grow-cluster`}>
      Add
    </Link>
    <Link className="button quiet" href={`/build/systems/${system.id}?draft=shrink-cluster`}>
      Take out
    </Link>
  </>
)

const DriveWords = ({ drive }: { readonly drive: Drive }) => (
  <>
    <h3>Drive {suffixOf(drive.serial)}</h3>
    <p className="mt-0">
      Bay {drive.bay}, {kindWords(drive)}, {drive.model}, serial number {drive.serial}.{' '}
      <Link className="textlink" href={`/build/drives?drive=${drive.id}`}>
        All of it
      </Link>
    </p>
  </>
)
