import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { byId, estateLadder, provisionableBytes, type Pool } from '@/core/estate'
import { countAtStart, formatBytes, tebibytes } from '@/core/units'
import { pools, systems, unassigned } from '@/records/queries'
import { fillOf, FillMark, layoutWords, PoolState } from '@/ui/build/pools'
import { Ladder, rungText } from '@/ui/drawings/ladder'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { RowLink, Table } from '@/ui/parts/Table'
import { buildParts } from '../parts'
import { poolMargin } from './poolMargin'

export const metadata = { title: 'Pools' }

type Search = Promise<{ readonly draft?: string; readonly change?: string; readonly sel?: string }>

export default async function Page({ searchParams }: { readonly searchParams: Search }) {
  const asked = await onlyTexts(searchParams)
  const { scope } = await reader()
  const [allPools, allSystems, free] = await Promise.all([pools(scope), systems(scope), unassigned(scope)])
  const fullestFirst = [...allPools].sort((a, b) => fillOf(b, b.writtenBytes) - fillOf(a, a.writtenBytes))
  return (
    <Frame margin={await poolMargin(asked, fullestFirst, allSystems)}>
      <Title words="Pools">
        <SubSections of={buildParts} />
      </Title>
      <Sentence fullestFirst={fullestFirst} />
      <Table
        rows={fullestFirst}
        keyOf={pool => pool.id}
        isSelected={pool => pool.id === asked.sel}
        columns={[
          { head: 'Pool', cell: ({ id, name }) => <RowLink href={`/build/pools?sel=${id}`}>{name}</RowLink> },
          { head: 'System', cell: ({ systemId }) => byId(allSystems, systemId)?.name },
          { head: 'Layout', cell: layoutWords, className: 'whitespace-nowrap' },
          { head: 'For volumes, TiB', cell: pool => tebibytes(provisionableBytes(pool)), isNumber: true },
          { head: 'Written', cell: pool => tebibytes(pool.writtenBytes), isNumber: true },
          { head: 'Fill, and what is promised', cell: pool => <FillMark pool={pool} /> },
          { head: 'State', cell: pool => <PoolState pool={pool} /> },
        ]}
      />
      {allPools.length > 0 && (
        <Ladder
          title="All pools and free drives, from raw to free"
          rungs={estateLadder(allPools, free.bytes).map(rungText)}
          width={620}
        />
      )}
    </Frame>
  )
}

function Sentence({ fullestFirst }: { readonly fullestFirst: readonly Pool[] }) {
  const [fullest] = fullestFirst
  if (fullest === undefined)
    return (
      <p className="sentence">
        <b>No pool has been built yet.</b> Choose a system with free drives.
      </p>
    )
  const capacity = fullestFirst.reduce((sum, pool) => sum + provisionableBytes(pool), 0n)
  return (
    <p className="sentence">
      <b>
        {countAtStart(fullestFirst.length, 'pool holds', 'pools hold')} {formatBytes(capacity)} for volumes.
      </b>{' '}
      {fullest.name} is the fullest, at {(fillOf(fullest, fullest.writtenBytes) * 100).toFixed(0)}%.
    </p>
  )
}
