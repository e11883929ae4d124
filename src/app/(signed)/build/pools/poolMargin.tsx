import { Link } from '@/ui/parts/Link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { choicesFor } from '@/app/server/choices'
import { keptDraft } from '@/app/server/keptDraft'
import { byId, poolLadder, provisionableBytes, type Pool, type System } from '@/core/estate'
import { keepPoolIntent, removePoolIntent } from '@/core/intents'
import { formatBytes } from '@/core/units'
import { changesAbout } from '@/records/changes'
import { drivesBySystem, pieceWorks } from '@/records/queries'
import { PieceWorks } from '@/ui/build/clusters'
import { fillOf, layoutWords } from '@/ui/build/pools'
import { ChangeLines } from '@/ui/changes'
import { Ladder, rungText } from '@/ui/drawings/ladder'
import { IntentForm, KeyedDraft } from '@/ui/drafts'
import { Margin } from '@/ui/frame'

interface Asked {
  readonly draft?: string
  readonly change?: string
  readonly sel?: string
}

/** The pool that is selected, what is drafted about it, or what matters of all of them. */
export async function poolMargin(
  { draft, change, sel }: Asked,
  fullestFirst: readonly Pool[],
  systems: readonly System[],
) {
  if (draft === 'choose-system') return <ChooseSystem systems={systems} />
  const pool = byId(fullestFirst, sel)
  const system = byId(systems, pool?.systemId)
  if (pool === undefined || system === undefined) return <WithoutChoice fullest={fullestFirst[0]} />
  if (draft !== 'remove-pool' && draft !== 'keep-pool') return <PoolMargin pool={pool} system={system} />
  const drafted = draft === 'keep-pool' ? keepPoolIntent : removePoolIntent
  return (
    <KeyedDraft id={change}>
      <IntentForm<object>
        kind={drafted.kind}
        title={`${drafted.title}: ${pool.name}`}
        begin={
          drafted.kind === 'keep-pool'
            ? { poolId: pool.id, application: pool.keptFor ?? '' }
            : { systemId: pool.systemId, poolId: pool.id }
        }
        choices={await choicesFor(drafted)}
        kept={await keptDraft(change, draft)}
      />
    </KeyedDraft>
  )
}

/** What matters most while no pool is chosen: the one that will be full first. */
const WithoutChoice = ({ fullest }: { readonly fullest: Pool | undefined }) => (
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

async function PoolMargin({ pool, system }: { readonly pool: Pool; readonly system: System }) {
  const { scope } = await reader()
  return (
    <Margin
      foot={
        <>
          <NewDraft href={`/provision?draft=provision-volume&pool=${pool.id}`}>Provision from it</NewDraft>
          <Link className="button quiet" href={`/build/pools?sel=${pool.id}&draft=keep-pool`}>
            {pool.keptFor === null ? 'Keep for one' : 'Kept for'}
          </Link>
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
        {pool.keptFor !== null && <>, kept for {pool.keptFor}</>}
      </div>
      <Ladder title="From raw to free" rungs={poolLadder(pool).map(rungText)} />
      <PieceWorks works={await pieceWorks(scope, pool.id)} />
      <h3>Promised</h3>
      <p className="mt-0">
        {formatBytes(pool.provisionedBytes)} to volumes, {(fillOf(pool, pool.provisionedBytes) * 100).toFixed(0)}% of
        its {formatBytes(provisionableBytes(pool))}.{' '}
        <Link className="textlink" href={`/provision?poolId=${pool.id}`}>
          Its volumes
        </Link>
      </p>
      <h3>Changes</h3>
      <ChangeLines changes={await changesAbout(scope, pool.id, 6)} none="None has touched it yet." />
    </Margin>
  )
}

async function ChooseSystem({ systems }: { readonly systems: readonly System[] }) {
  const drives = await drivesBySystem((await reader()).scope)
  return (
    <Margin>
      <h2>New pool</h2>
      <p className="text-second">On which system? A pool takes drives of one system.</p>
      {systems.map(({ id, name }) => {
        const free = drives.get(id)?.freeCount ?? 0
        return (
          <div key={id} className="flex items-center justify-between border-b border-rule-fine py-2">
            <span>
              <b className="font-semibold">{name}</b>, {free} free drives
            </span>
            {free > 0 && (
              <Link data-row className="button quiet py-[2px]" href={`/build/systems/${id}?draft=create-pool`}>
                Build on it
              </Link>
            )}
          </div>
        )
      })}
      {systems.length === 0 && (
        <Link className="button" href="/build?draft=register-system">
          Register a system first
        </Link>
      )}
    </Margin>
  )
}
