import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { draftsBelow, keptDraft } from '@/app/server/keptDraft'
import { byId, provisionableBytes, type Pool, type Site, type System } from '@/core/estate'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import { changeLines } from '@/records/changes'
import { drivesBySystem, pools, sites, standingFindings, systems, type SystemDrives } from '@/records/queries'
import { AddSite } from '@/ui/build/sites'
import { ChangeLines, LeftDrafts } from '@/ui/changes'
import { KeyedDraft, RegisterSystem } from '@/ui/drafts'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { Bytes } from '@/ui/parts/Bytes'
import { Reach } from '@/ui/parts/Reach'
import { RowLink, Table } from '@/ui/parts/Table'
import { FindingList } from '@/ui/watch/findings'
import { buildParts } from './parts'

export const metadata = { title: 'Build' }

type Search = Promise<{ readonly draft?: string; readonly change?: string }>

export default async function Page({ searchParams }: { readonly searchParams: Search }) {
  const { draft, change } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const [allSystems, allPools, drives, allSites, findings, latest] = await Promise.all([
    systems(scope),
    pools(scope),
    drivesBySystem(scope),
    sites(scope),
    standingFindings(scope, null),
    changeLines(scope, 8),
  ])
  const margin =
    draft === 'register-system' ? (
      <KeyedDraft id={change}>
        <RegisterSystem sites={allSites} kept={await keptDraft(change, 'register-system')} />
      </KeyedDraft>
    ) : (
      <BuildMargin sites={allSites} systems={allSystems} />
    )
  return (
    <Frame margin={margin}>
      <Title words="Build">
        <SubSections of={buildParts} />
      </Title>
      <Sentence systems={allSystems.length} pools={allPools.length} drives={[...drives.values()]} />
      <SystemTable systems={allSystems} pools={allPools} drives={drives} sites={allSites} />
      {allSystems.length > 0 && (
        <>
          <FindingList records={findings} />
          <h3>Latest changes</h3>
          <ChangeLines changes={latest} none="No change has been made yet." />
        </>
      )}
    </Frame>
  )
}

interface SentenceProps {
  readonly systems: number
  readonly pools: number
  readonly drives: readonly SystemDrives[]
}

function Sentence({ systems: count, pools: poolCount, drives }: SentenceProps) {
  const all = drives.reduce((sum, each) => sum + each.count, 0)
  const free = drives.reduce((sum, each) => sum + each.freeCount, 0)
  if (count === 0)
    return (
      <p className="sentence">
        <b>No system is registered yet.</b> Register the first by its management address.
      </p>
    )
  return (
    <p className="sentence">
      <b>
        {countAtStart(count, 'system has', 'systems have')} {all} drives and {countWords(poolCount, 'pool', 'pools')}.
      </b>{' '}
      {free > 0 ? `${countAtStart(free, 'drive is', 'drives are')} free for a pool or cluster.` : 'No drive is free.'}
    </p>
  )
}

interface SystemTableProps {
  readonly systems: readonly System[]
  readonly pools: readonly Pool[]
  readonly drives: ReadonlyMap<string, SystemDrives>
  readonly sites: readonly Site[]
}

function SystemTable({ systems: all, pools: allPools, drives, sites: allSites }: SystemTableProps) {
  const capacityOf = ({ id }: System) =>
    allPools.filter(pool => pool.systemId === id).reduce((sum, pool) => sum + provisionableBytes(pool), 0n)
  const driveWords = ({ id }: System) => {
    const own = drives.get(id)
    return own === undefined ? '0' : `${own.count}${own.freeCount === 0 ? '' : `, ${own.freeCount} free`}`
  }
  return (
    <Table
      rows={all}
      keyOf={system => system.id}
      columns={[
        { head: 'System', cell: ({ id, name }) => <RowLink href={`/build/systems/${id}`}>{name}</RowLink> },
        { head: 'Site', cell: ({ siteId }) => byId(allSites, siteId)?.name ?? '—' },
        { head: 'What', cell: ({ maker, model }) => `${maker} ${model}` },
        { head: 'Drives', cell: driveWords, isNumber: true },
        { head: 'Raw', cell: ({ id }) => <Bytes bytes={drives.get(id)?.rawBytes ?? 0n} />, isNumber: true },
        {
          head: 'For volumes',
          cell: system => (capacityOf(system) === 0n ? '—' : formatBytes(capacityOf(system))),
          isNumber: true,
        },
        { head: 'State', cell: system => <Reach of={system} /> },
      ]}
    />
  )
}

async function BuildMargin({ sites: all, systems: allSystems }: Pick<SystemTableProps, 'sites' | 'systems'>) {
  const namesAt = (site: Site) => allSystems.filter(system => system.siteId === site.id).map(system => system.name)
  return (
    <Margin foot={<NewDraft href="/build?draft=register-system">Register a system</NewDraft>}>
      <h2>Building</h2>
      <p>A system is registered by its management address. Its drives then become pools, and pools give volumes.</p>
      <LeftDrafts drafts={await draftsBelow('/build')} />
      <h3>Sites</h3>
      {all.map(site => (
        <div key={site.id} className="flex justify-between border-b border-rule-fine py-1">
          <span>{site.name}</span>
          <span className="text-second">{namesAt(site).join(', ') || 'no system yet'}</span>
        </div>
      ))}
      {all.length === 0 && <p className="text-second">None yet.</p>}
      <AddSite />
    </Margin>
  )
}
