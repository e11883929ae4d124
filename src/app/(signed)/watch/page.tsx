import { Link } from '@/ui/parts/Link'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { estateNow } from '@/records/inventory'
import { capacityShares, poolGrowth, poolLevels, poolsByDate } from '@/records/queries'
import { shareBys } from '@/core/views'
import { GrowthChart } from '@/ui/drawings/growth'
import { SpaceBar } from '@/ui/drawings/space'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { capacitySentence, Growers, PoolDue, PoolsByDate, Shares } from '@/ui/watch/capacity'
import { watchParts } from './parts'

export const metadata = { title: 'Capacity' }

const shownAtFirst = 60

type Search = Promise<{ readonly sel?: string; readonly all?: string; readonly by?: string }>

export default async function Page({ searchParams }: { readonly searchParams: Search }) {
  const { sel, all, by } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const pools = await poolsByDate(scope)
  const now = await estateNow(scope)
  const chosen = pools.find(({ pool }) => pool.id === sel) ?? pools[0]
  const growth = chosen === undefined ? undefined : await poolGrowth(scope, chosen, now)
  const shown = all === 'yes' ? pools : pools.slice(0, shownAtFirst)
  const shownIds = shown.map(({ pool }) => pool.id)
  const levels = await poolLevels(scope, shownIds, now)
  const shareBy = shareBys.find(each => each === by) ?? 'application'
  const shares = await capacityShares(scope, shareBy)
  return (
    <Frame margin={growth === undefined ? undefined : <PoolDue growth={growth} />}>
      <Title words="Watch">
        <SubSections of={watchParts} />
      </Title>
      <Sentence pools={pools} />
      {growth !== undefined && <OfPool growth={growth} />}
      {pools.length > 0 && (
        <>
          <h3>
            All pools <span>TiB, past the limit first, then by date</span>
          </h3>
          <PoolsByDate pools={shown} levels={levels} selected={chosen?.pool.id} />
          {shown.length < pools.length && (
            <Link className="textlink" href="/watch?all=yes">
              All {pools.length} pools
            </Link>
          )}
          <Shares
            by={shareBy}
            shares={shares}
            addressOf={each => `/watch?${new URLSearchParams({ ...(sel === undefined ? {} : { sel }), by: each })}`}
          />
        </>
      )}
    </Frame>
  )
}

type Growth = Awaited<ReturnType<typeof poolGrowth>>
type Pools = Awaited<ReturnType<typeof poolsByDate>>

function Sentence({ pools }: { readonly pools: Pools }) {
  const { first, then } = capacitySentence(pools)
  return pools.length === 0 ? (
    <p className="sentence">
      <b>No pool has been built yet.</b> What pools hold is measured from their first day on.
    </p>
  ) : (
    <p className="sentence">
      <b>{first}</b> {then}
    </p>
  )
}

/** The course of the pool that is chosen, who makes it grow, and what it consists of. */
const OfPool = ({ growth }: { readonly growth: Growth }) => (
  <>
    {growth.levels !== undefined && growth.outlook !== undefined && (
      <div className="grid grid-cols-[minmax(0,2.1fr)_minmax(0,1fr)] gap-6 max-lg:grid-cols-1">
        <GrowthChart name={growth.pool.name} levels={growth.levels} outlook={growth.outlook} />
        <Growers
          growers={growth.growers}
          wholeBytesPerDay={'why' in growth.outlook ? undefined : growth.outlook.slopeBytesPerDay}
        />
      </div>
    )}
    <SpaceBar parts={growth.composition} />
  </>
)
