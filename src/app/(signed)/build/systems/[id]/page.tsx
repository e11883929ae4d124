import { notFound } from 'next/navigation'
import { reader } from '@/app/server/guard'
import { isUuid } from '@/core/input'
import { driveQuestion, type DrivesAsked } from '@/app/server/driveQuestion'
import { listQuery } from '@/app/server/listQuery'
import { packedOnce } from '@/app/server/packedOnce'
import { onlyTexts } from '@/app/server/onlyTexts'
import { keptDraft } from '@/app/server/keptDraft'
import { estateLadder, intakeState, poolLadder, unassignedBytes } from '@/core/estate'
import type { FindingRecord, SystemPage } from '@/core/views'
import { countAtStart, countWords } from '@/core/units'
import { changesAbout } from '@/records/changes'
import { driveList, rowNetwork, standingFindings, systemPage } from '@/records/queries'
import { SystemBays } from '@/ui/build/bays'
import { IntakeList } from '@/ui/build/intake'
import { ChangeLines } from '@/ui/changes'
import { CreatePool, KeyedDraft, PoolChoice } from '@/ui/drafts'
import { FindingList } from '@/ui/watch/findings'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { Ladder, rungText } from '@/ui/drawings/ladder'
import { buildParts } from '../../parts'
import { systemDraft } from './SystemDraft'
import { SystemMargin } from './SystemMargin'
import { RowOfNodes } from './RowOfNodes'

interface PageProps {
  readonly params: Promise<{ readonly id: string }>
  readonly searchParams: Promise<{
    readonly draft?: string
    readonly change?: string
    readonly drive?: string
    readonly pool?: string
    readonly finding?: string
    readonly filter?: string
    readonly sort?: string
    readonly descending?: string
  }>
}

export default async function Page({ params, searchParams }: PageProps) {
  const { id } = await params
  const { scope } = await reader()
  const { draft, change, drive, ...more } = await onlyTexts(searchParams)
  const page = isUuid(id) ? await systemPage(scope, id) : undefined
  if (page === undefined) notFound()
  const { system, drives } = page
  const { nodes } = await rowNetwork(scope, id)
  if (nodes.length > 0) return <RowOfNodes page={page} nodes={nodes} params={{ draft, change, drive, ...more }} />
  const records = await standingFindings(scope, id)
  if (draft === 'create-pool') return <PoolDraft page={page} change={change} records={records} drive={drive} />
  const finding = records.find(each => each.finding.key === more.finding)?.finding
  const form = await systemDraft(system, { draft, change }, finding)
  const margin = form ?? <SystemMargin page={page} drive={drives.find(each => each.id === drive)} />
  return (
    <KeyedDraft id={form === undefined ? 'none' : change} of={`${system.id}/${draft ?? ''}`}>
      <PoolChoice isOpen={false} initial={[]}>
        <Frame margin={margin}>
          <Head page={page} records={records} drive={drive} />
          <Below page={page} drive={drive} asked={more} />
        </Frame>
      </PoolChoice>
    </KeyedDraft>
  )
}

interface PartProps {
  readonly page: SystemPage
  readonly drive: string | undefined
}

interface HeadProps extends PartProps {
  readonly records: readonly FindingRecord[]
}

/** A pool drafted in the bays of the system. */
async function PoolDraft({ change, ...head }: HeadProps & { readonly change: string | undefined }) {
  const { system, drives } = head.page
  const kept = await keptDraft(change, 'create-pool')
  const chosen = kept?.intent['driveIds']
  return (
    <KeyedDraft id={change} of={`${system.id}/create-pool`}>
      <PoolChoice isOpen initial={Array.isArray(chosen) ? (chosen as string[]) : []}>
        <Frame margin={<CreatePool system={system} drives={packedOnce(drives)} kept={kept} />}>
          <Head {...head} />
        </Frame>
      </PoolChoice>
    </KeyedDraft>
  )
}

function Head({ page: { system, enclosures, drives, pools }, records, drive }: HeadProps) {
  const free = drives.filter(each => intakeState(each) === 'unassigned')
  return (
    <>
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
      {records.length > 0 && <FindingList records={records} />}
      <SystemBays
        systemId={system.id}
        enclosures={enclosures}
        drives={packedOnce(drives)}
        pools={pools}
        highlighted={drive}
      />
    </>
  )
}

/** What stands below the bays: its space, what was changed last, and the same drives as rows. */
async function Below({ page: { system, drives, pools }, drive, asked }: PartProps & { readonly asked: DrivesAsked }) {
  const { scope } = await reader()
  const question = driveQuestion({ ...asked, systemId: system.id })
  const [only] = pools
  const isAllInOne = pools.length === 1 && drives.every(each => each.role !== 'unassigned')
  const rungs = isAllInOne && only !== undefined ? poolLadder(only) : estateLadder(pools, unassignedBytes(drives))
  return (
    <>
      {pools.length > 0 && <Ladder title="From raw to free" rungs={rungs.map(rungText)} width={620} />}
      <h3>Latest changes</h3>
      <ChangeLines changes={await changesAbout(scope, system.id, 6)} none="None has touched it yet." />
      <IntakeList
        first={await driveList(scope, { ...question, limit: 200 })}
        question={listQuery(question).toString()}
        systems={[{ id: system.id, name: system.name, isRow: false, clusterPoolId: null }]}
        selected={drive}
        isOfOneSystem
      />
    </>
  )
}
