import Link from 'next/link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { keptDraft } from '@/app/server/keptDraft'
import { isSpreadScheme, schemeWords } from '@/core/clusters'
import { byId, poolLadder, provisionableBytes, type Pool, type System } from '@/core/estate'
import { countAtStart, formatBytes, tebibytes } from '@/core/units'
import type { PieceWork } from '@/core/views'
import { drives, pieceWorks, pools, systems } from '@/records/queries'
import { PieceWorks } from '@/ui/build/clusters'
import { IntentForm, KeyedDraft } from '@/ui/drafts'
import { Margin, Page as Frame, SubSections, Title } from '@/ui/frame'
import { Ladder, rungText } from '@/ui/drawings/ladder'
import { State } from '@/ui/parts/State'
import { buildParts } from '../parts'

export const metadata = { title: 'Pools' }

const layoutWords = ({ scheme, groupSizes, spareCount, failureDomain }: Pool) => {
  if (isSpreadScheme(scheme))
    return `${schemeWords(scheme)} over ${failureDomain ?? 'node'}s, ${groupSizes.length} banks`
  if (scheme.kind === 'unknown') return `unknown layout (the system says: ${scheme.stated})`
  const group =
    scheme.kind === 'parity'
      ? `${[...new Set(groupSizes)].map(size => `${size - scheme.parityDrives}+${scheme.parityDrives}`).join(', ')}`
      : `${scheme.copies} copies`
  return `${groupSizes.length} × (${group})${spareCount === 0 ? '' : `, ${spareCount} spare${spareCount === 1 ? '' : 's'}`}`
}
const fillOf = (pool: Pool, bytes: bigint) => {
  const capacity = provisionableBytes(pool)
  return capacity === 0n ? 0 : Number(bytes) / Number(capacity)
}

export default async function Page({
  searchParams,
}: {
  readonly searchParams: Promise<{ readonly draft?: string; readonly change?: string; readonly sel?: string }>
}) {
  const { draft, change, sel } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const [allPools, allSystems] = await Promise.all([pools(scope), systems(scope)])
  const fullestFirst = [...allPools].sort((a, b) => fillOf(b, b.writtenBytes) - fillOf(a, a.writtenBytes))
  const selected = byId(allPools, sel)
  const capacity = allPools.reduce((sum, pool) => sum + provisionableBytes(pool), 0n)
  const kept = await keptDraft(change, 'remove-pool')
  const margin =
    draft === 'choose-system' ? (
      <ChooseSystem systems={allSystems} free={await freeDrives(allSystems)} />
    ) : draft === 'remove-pool' && selected !== undefined ? (
      <KeyedDraft id={change}>
        <IntentForm
          kind="remove-pool"
          title={`Remove pool ${selected.name}`}
          begin={{ systemId: selected.systemId, poolId: selected.id }}
          kept={kept}
        />
      </KeyedDraft>
    ) : (
      <PoolMargin
        pool={selected}
        system={byId(allSystems, selected?.systemId)}
        works={selected === undefined ? [] : await pieceWorks(scope, selected.id)}
        fullest={fullestFirst[0]}
      />
    )
  return (
    <Frame margin={margin}>
      <Title words="Pools">
        <SubSections of={buildParts} />
      </Title>
      <p className="sentence">
        <b>
          {allPools.length === 0
            ? 'No pool has been built yet.'
            : `${countAtStart(allPools.length, 'pool holds', 'pools hold')} ${formatBytes(capacity)} for volumes.`}
        </b>{' '}
        {fullestFirst[0] === undefined
          ? 'Choose a system with free drives.'
          : `${fullestFirst[0].name} is the fullest, at ${(fillOf(fullestFirst[0], fullestFirst[0].writtenBytes) * 100).toFixed(0)}%.`}
      </p>
      <div className="overflow-x-auto">
        <table className="plain">
          <thead>
            <tr>
              <th>Pool</th>
              <th>System</th>
              <th>Layout</th>
              <th className="number">For volumes, TiB</th>
              <th className="number">Written</th>
              <th>Fill, and what is promised</th>
              <th>State</th>
            </tr>
          </thead>
          <tbody>
            {fullestFirst.map(pool => (
              <tr key={pool.id} data-selected={pool.id === sel}>
                <td>
                  <Link data-row href={`/build/pools?sel=${pool.id}`} className="font-semibold no-underline">
                    {pool.name}
                  </Link>
                </td>
                <td>{byId(allSystems, pool.systemId)?.name}</td>
                <td className="whitespace-nowrap">{layoutWords(pool)}</td>
                <td className="number">{tebibytes(provisionableBytes(pool))}</td>
                <td className="number">{tebibytes(pool.writtenBytes)}</td>
                <td>
                  <FillMark pool={pool} />
                </td>
                <td>
                  <PoolState pool={pool} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Frame>
  )
}

async function freeDrives(allSystems: readonly System[]): Promise<ReadonlyMap<string, number>> {
  const all = await drives((await reader()).scope, null)
  return new Map(
    allSystems.map(system => [
      system.id,
      all.filter(drive => drive.systemId === system.id && drive.role === 'unassigned' && drive.state === 'fine').length,
    ]),
  )
}

function FillMark({ pool }: { readonly pool: Pool }) {
  const written = Math.min(1, fillOf(pool, pool.writtenBytes))
  const provisioned = fillOf(pool, pool.provisionedBytes)
  return (
    <span className="inline-flex items-center gap-2">
      <svg
        width={110}
        height={12}
        role="img"
        aria-label={`${(written * 100).toFixed(0)}% written, ${(provisioned * 100).toFixed(0)}% promised`}
      >
        <rect x={0.5} y={1.5} width={109} height={9} fill="none" stroke="var(--rule)" />
        <rect
          x={1}
          y={2}
          width={Math.min(1, provisioned) * 108}
          height={8}
          fill={provisioned > 1 ? 'var(--soon)' : 'var(--d4)'}
          opacity={0.3}
        />
        <rect x={1} y={2} width={written * 108} height={8} fill={written > 0.9 ? 'var(--soon)' : 'var(--d1)'} />
      </svg>
      <span className="mono">
        {(written * 100).toFixed(0)}% / {(provisioned * 100).toFixed(0)}%
      </span>
    </span>
  )
}

function PoolState({ pool }: { readonly pool: Pool }) {
  if (pool.state === 'starting') return <State gravity="unknown">initialising</State>
  if (pool.state === 'degraded' || pool.state === 'failed') return <State gravity="now">{pool.state}</State>
  return fillOf(pool, pool.writtenBytes) > 0.9 ? (
    <State gravity="soon">nearly full</State>
  ) : (
    <State gravity="fine">in order</State>
  )
}

/** What matters most while no pool is chosen: the one that will be full first. */
function WithoutChoice({ fullest }: { readonly fullest: Pool | undefined }) {
  return (
    <Margin foot={<NewDraft href="/build/pools?draft=choose-system">Create a pool</NewDraft>}>
      {fullest === undefined ? (
        <>
          <h2>No pool yet</h2>
          <p className="text-second">A pool is built from free drives of one system, or of the nodes of a cluster.</p>
        </>
      ) : (
        <>
          <h2>The fullest</h2>
          <div className="text-second">
            <Link className="textlink" href={`/build/pools?sel=${fullest.id}`}>
              {fullest.name}
            </Link>
            , {layoutWords(fullest)}: {formatBytes(provisionableBytes(fullest) - fullest.writtenBytes)} left to write.
          </div>
          <Ladder title="From raw to free" rungs={poolLadder(fullest).map(rungText)} />
        </>
      )}
    </Margin>
  )
}

function PoolMargin({
  pool,
  system,
  works,
  fullest,
}: {
  readonly pool: Pool | undefined
  readonly fullest: Pool | undefined
  readonly system: System | undefined
  readonly works: readonly PieceWork[]
}) {
  if (pool === undefined || system === undefined) return <WithoutChoice fullest={fullest} />
  return (
    <Margin
      foot={
        <>
          <NewDraft href={`/provision?draft=provision-volume&pool=${pool.id}`}>Provision from it</NewDraft>
          <Link className="button quiet" href={`/build/pools?sel=${pool.id}&draft=remove-pool`}>
            Remove
          </Link>
        </>
      }
    >
      <h2>{pool.name}</h2>
      <div className="text-second">
        {layoutWords(pool)} on{' '}
        <Link className="textlink" href={`/build/systems/${system.id}`}>
          {system.name}
        </Link>
      </div>
      <Ladder title="From raw to free" rungs={poolLadder(pool).map(rungText)} />
      <PieceWorks works={works} />
      <h3>Promised</h3>
      <p className="mt-0">
        {formatBytes(pool.provisionedBytes)} to volumes, {(fillOf(pool, pool.provisionedBytes) * 100).toFixed(0)}% of
        its {formatBytes(provisionableBytes(pool))}.{' '}
        <Link className="textlink" href={`/provision?poolId=${pool.id}`}>
          Its volumes
        </Link>
      </p>
    </Margin>
  )
}

function ChooseSystem({
  systems: all,
  free,
}: {
  readonly systems: readonly System[]
  readonly free: ReadonlyMap<string, number>
}) {
  return (
    <Margin>
      <h2>New pool</h2>
      <p className="text-second">On which system? A pool takes drives of one system.</p>
      {all.map(system => (
        <div key={system.id} className="flex items-center justify-between border-b border-rule-fine py-2">
          <span>
            <b className="font-semibold">{system.name}</b>, {free.get(system.id) ?? 0} free drives
          </span>
          {(free.get(system.id) ?? 0) > 0 && (
            <Link data-row className="button quiet py-[2px]" href={`/build/systems/${system.id}?draft=create-pool`}>
              Build on it
            </Link>
          )}
        </div>
      ))}
      {all.length === 0 && (
        <Link className="button" href="/build?draft=register-system">
          Register a system first
        </Link>
      )}
    </Margin>
  )
}
