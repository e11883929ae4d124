import { growClusterIntent, type GrowClusterIntent as Intent } from '@/core/intents'
import { byId, type Drive, type Estate, within } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { BankWanted } from '@/ports'
import type { ChangeKind } from '../../ChangeKind'
import { advise, must } from '../../parts/checks'
import { banksAt, banksCheck, cleanDriveChecks, clusterChoice, type ClusterChoice } from '../../parts/clusterChoice'
import { layoutOn, movedBytes, movingParts, spreadOf } from '../../parts/growing'
import { nodesAnswer, rowChecks } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import { rowReady } from '../../parts/rowReady'
import { prove, runStep, undoStep, type Step } from './steps'

export const growCluster: ChangeKind<Intent, Step> = {
  ...growClusterIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  runStep,
  undoStep,
  prove,
  collects: ({ systemId }) => [systemId],
  reverse: ({ systemId, poolId, driveIds, ratePercent }) => ({
    kind: 'shrink-cluster',
    intent: { systemId, poolId, driveIds, ratePercent },
  }),
}

/** The chosen drives in banks: capacity without a cache drive of its own goes behind the cache drives that its node has. */
function grownBanks(estate: Estate, intent: Intent) {
  const current = estate.drives.filter(drive => drive.poolId === intent.poolId)
  const next = new Map<string, number>()
  for (const drive of current)
    if (drive.nodeId !== null) next.set(drive.nodeId, Math.max(next.get(drive.nodeId) ?? 1, (drive.bank ?? 0) + 1))
  const choice = clusterChoice(estate, intent.systemId, intent.driveIds, intent.roles, next)
  const placed: { readonly cache: Drive; readonly drive: Drive }[] = []
  const unplaced: { driveId: string; why: string }[] = []
  for (const each of choice.unplaced) {
    const drive = byId(estate.drives, each.driveId)
    const node = byId(estate.nodes, drive?.nodeId)
    const caches = current.filter(
      other => other.role === 'cache' && other.nodeId === drive?.nodeId && other.state === 'fine',
    )
    const held = (cache: Drive) =>
      current.filter(other => other.role === 'data' && other.nodeId === cache.nodeId && other.bank === cache.bank)
        .length + placed.filter(other => other.cache === cache).length
    const open = caches
      .filter(cache => held(cache) < (node?.mostCapacityDrives ?? 0))
      .sort((a, b) => held(a) - held(b))[0]
    if (drive === undefined || open === undefined) unplaced.push(each)
    else placed.push({ cache: open, drive })
  }
  return { current, choice: { ...choice, unplaced } satisfies ClusterChoice, placed }
}

/** The banks as the system is asked for them: new ones, and more behind the cache drives that are there. */
function banksWanted(
  estate: Estate,
  choice: ClusterChoice,
  placed: ReturnType<typeof grownBanks>['placed'],
): readonly BankWanted[] {
  const more = placed.map(({ cache, drive }) => ({
    number: cache.bank ?? 1,
    nodeId: cache.nodeId,
    cacheDriveId: cache.id,
    capacityDriveIds: [drive.id],
  }))
  return banksAt(estate, [...choice.banks, ...more])
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const pool = look.one('pools', intent.poolId)
  const scheme = spreadOf(pool)
  const { current, choice, placed } = grownBanks(estate, intent)
  const capacity = [...choice.capacity, ...placed.map(each => each.drive)]
  const data = current.filter(drive => drive.role === 'data')
  const members = estate.nodes.filter(node => current.some(drive => drive.nodeId === node.id))
  const joining = choice.nodes.filter(node => !members.includes(node))
  const banks = banksWanted(estate, choice, placed)
  const nodes = [...members, ...joining]
  const after = layoutOn(pool, nodes, [...data, ...capacity])
  const moved =
    pool === undefined || scheme === undefined ? 0n : movedBytes(pool, scheme, capacity, [...data, ...capacity])
  const hasBank = choice.banks.length > 0 || placed.length > 0
  look.at('nodes', nodes)
  look.at('drives', choice.drives)
  return {
    after,
    banks,
    capacity,
    choice,
    data,
    estate,
    hasBank,
    intent,
    joining,
    look,
    moved,
    nodes,
    pool,
    scheme,
    system,
  }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { choice, joining, look, pool } = seen

  return outlined<Step>(estate, {
    title: `Add ${choice.drives.length} drives${joining.length > 0 ? ` and ${joining.map(node => node.name).join(', ')}` : ''} to ${pool?.name ?? '…'}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    undo: { possible: true, how: 'The drives can be taken out again; what has moved then moves back.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [...intent.driveIds, ...(pool === undefined ? [] : [pool.id]), `cluster:${intent.systemId}`],
    proof:
      'The pool is asked for its banks again: each drive is in its bank, nothing moves any more, and the pool is whole.',
  })
}

function checksOf({
  choice,
  estate,
  hasBank,
  intent,
  joining,
  moved,
  nodes,
  pool,
  scheme,
  system,
}: Seen): readonly PlanCheck[] {
  return [
    ...rowChecks(system, estate.nodes),
    ...poolChecks({ pool, scheme }),
    nodesAnswer(nodes),
    ...(joining.length > 0 ? rowReady(estate, intent.systemId, nodes) : []),
    ...cleanDriveChecks(choice, intent.driveIds.length),
    choice.unplaced.length > 0 || !hasBank
      ? banksCheck(estate, choice)
      : must('banks', true, 'Every drive has a place in a bank.', { field: 'driveIds' }),
    advise(
      'moves',
      moved === 0n,
      'Nothing is stored yet, so nothing moves.',
      `${formatBytes(moved)} of pieces moves to them: their share, and no more.`,
      { remedy: 'Choose the rate so that hosts keep enough.' },
    ),
  ]
}

const poolChecks = ({ pool, scheme }: Pick<Seen, 'pool' | 'scheme'>): readonly PlanCheck[] => [
  must(
    'pool',
    scheme !== undefined && pool?.state !== 'starting',
    scheme === undefined
      ? 'Choose a pool of a cluster.'
      : pool?.state === 'starting'
        ? `${pool.name} is still being laid out.`
        : `${pool?.name} can grow.`,
    { field: 'poolId' },
  ),
  must(
    'pool-whole',
    pool?.state !== 'degraded' && pool?.state !== 'failed',
    pool?.state === 'degraded' || pool?.state === 'failed'
      ? `${pool.name} is ${pool.state}.`
      : 'Nothing of it is lost.',
    { remedy: 'Let it make itself whole first.' },
  ),
]

function effectsOf({ after, moved, pool }: Seen): readonly Effect[] {
  return [
    {
      figure: 'usableBytes',
      label: 'Usable',
      unit: 'bytes',
      before: `${pool?.usableBytes ?? 0n}`,
      after: after === undefined ? null : `${after.usableBytes}`,
    },
    { figure: 'movedBytes', label: 'Moves because of it', unit: 'bytes', before: null, after: `${moved}` },
    {
      figure: 'stranded',
      label: 'Stranded',
      unit: 'bytes',
      before: `${pool?.strandedBytes ?? 0n}`,
      after: after === undefined ? null : `${after.strandedBytes}`,
    },
  ]
}

function stepsOf({ banks, capacity, data, estate, intent, joining, moved, nodes, pool }: Seen): Outlined<Step>[] {
  if (pool === undefined) return []
  return [
    ...(joining.length === 0
      ? []
      : [
          {
            step: {
              step: 'join' as const,
              systemId: intent.systemId,
              nodeLocators: nodes.map(node => node.locator),
              joining: joining.map(node => node.locator),
            },
            words: `Take in ${joining.map(node => node.name).join(', ')}, its restart service off meanwhile`,
            seconds: 3,
          },
        ]),
    {
      step: {
        step: 'add',
        systemId: intent.systemId,
        poolLocator: pool.locator,
        banks,
        rateRatio: intent.ratePercent / 100,
      },
      words: 'Put the drives into their banks',
      seconds: 2,
    },
    {
      step: { step: 'move', systemId: intent.systemId, poolLocator: pool.locator },
      words: `Move ${formatBytes(moved)} of pieces`,
      seconds: 3,
      bytes: moved,
      parts: capacity.length === 0 ? [] : movingParts(estate, data, capacity, intent.ratePercent),
    },
  ]
}
