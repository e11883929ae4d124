import { reader } from '@/app/server/guard'
import { estateLadder, provisionableBytes, type Pool, type System } from '@/core/estate'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import { estateNow, latestPromises } from '@/records/inventory'
import { sinceLatestRound } from '@/records/rounds'
import { poolLevels, pools, systems, todayNow, unassigned } from '@/records/queries'
import { Page as Frame, Title } from '@/ui/frame'
import { Ladder, rungText } from '@/ui/drawings/ladder'
import { Ago } from '@/ui/parts/Ago'
import { Reach } from '@/ui/parts/Reach'
import { RowLink, Table } from '@/ui/parts/Table'
import { PromiseTable } from '@/ui/provision/classes'
import { TodayFindings } from '@/ui/watch/findings'
import { AgainstPromise, FirstToFill } from '@/ui/watch/today'
import { RoundDone, SinceRound } from '@/ui/watch/rounds'
import { NewDraft } from './NewDraft'
import { TodayMargin } from './TodayMargin'

export const metadata = { title: 'Today' }

export default async function Page() {
  const { scope } = await reader()
  const [allSystems, allPools, free, since, now] = await Promise.all([
    systems(scope),
    pools(scope),
    unassigned(scope),
    sinceLatestRound(scope),
    estateNow(scope),
  ])
  const { open: findings, stood, filling, answering } = await todayNow(scope, allSystems, allPools)
  const first = filling[0]?.pool.id
  const levels = first === undefined ? undefined : (await poolLevels(scope, [first], now)).get(first)
  const promises = await latestPromises(scope)
  return (
    <Frame margin={<TodayMargin />}>
      <Title words={`${now.toLocaleDateString('en', { weekday: 'long' })}'s round`}>
        {allSystems.length > 0 && <RoundDone />}
      </Title>
      {allSystems.length === 0 ? (
        <Empty />
      ) : (
        <>
          <Sentence findings={findings.length} systems={allSystems.length} pools={allPools} free={free} />
          {since !== undefined && <SinceRound since={since} />}
          <TodayFindings findings={findings} stood={stood} />
          <div className="grid grid-cols-2 gap-x-7 max-md:grid-cols-1">
            {levels !== undefined && <FirstToFill pools={filling} levels={levels} />}
            <AgainstPromise lines={answering.lines} />
          </div>
          {promises !== undefined && <PromiseTable {...promises} />}
          <Ladder
            title="The estate, from raw to free"
            rungs={estateLadder(allPools, free.bytes).map(rungText)}
            width={620}
          />
          <h3>Systems</h3>
          <SystemTable systems={allSystems} pools={allPools} />
        </>
      )}
    </Frame>
  )
}

interface SentenceProps {
  readonly findings: number
  readonly systems: number
  readonly pools: readonly Pool[]
  readonly free: { readonly freeCount: number; readonly freeBytes: bigint }
}

function Sentence({ findings, systems: count, pools: all, free }: SentenceProps) {
  const usable = all.reduce((sum, pool) => sum + provisionableBytes(pool), 0n)
  return (
    <p className="sentence">
      <b>{findings === 0 ? 'Nothing needs you.' : `${countAtStart(findings, 'thing', 'things')} to look at.`}</b>{' '}
      {countAtStart(count, 'system', 'systems')} with {countWords(all.length, 'pool', 'pools')}{' '}
      {count === 1 ? 'holds' : 'hold'} {formatBytes(usable)} for volumes
      {free.freeCount > 0
        ? `; ${countWords(free.freeCount, 'drive', 'drives')} of ${formatBytes(free.freeBytes)} ${free.freeCount === 1 ? 'is' : 'are'} free.`
        : '.'}
    </p>
  )
}

function SystemTable({
  systems: all,
  pools: allPools,
}: {
  readonly systems: readonly System[]
  readonly pools: readonly Pool[]
}) {
  const sumOf = ({ id }: System, bytes: (pool: Pool) => bigint) =>
    allPools.filter(pool => pool.systemId === id).reduce((sum, pool) => sum + bytes(pool), 0n)
  return (
    <Table
      rows={all}
      keyOf={system => system.id}
      columns={[
        { head: 'System', cell: ({ id, name }) => <RowLink href={`/build/systems/${id}`}>{name}</RowLink> },
        { head: 'What', cell: ({ maker, model }) => `${maker} ${model}` },
        { head: 'Written', cell: system => formatBytes(sumOf(system, pool => pool.writtenBytes)), isNumber: true },
        { head: 'For volumes', cell: system => formatBytes(sumOf(system, provisionableBytes)), isNumber: true },
        { head: 'State', cell: system => <Reach of={system} /> },
        {
          head: 'Seen',
          cell: ({ seenAt }) => (seenAt === null ? 'never' : <Ago at={seenAt} />),
          className: 'text-second',
        },
      ]}
    />
  )
}

const Empty = () => (
  <>
    <p className="sentence">
      <b>The estate is empty.</b> First register a storage system by its management address; then build a pool from its
      drives, and provision a volume to a host.
    </p>
    <ol className="m-0 list-none p-0">
      <li className="border-t border-rule-fine py-2">
        <NewDraft href="/build?draft=register-system">Register a system</NewDraft>
      </li>
      <li className="border-t border-rule-fine py-2 text-second">Then: a pool from its drives</li>
      <li className="border-t border-b border-rule-fine py-2 text-second">
        Then: a volume to a host, proven by a write and a read
      </li>
    </ol>
  </>
)
