import { growClusterIntent, type GrowClusterIntent as Intent } from '@/core/intents'
import { clusterLayout } from '@/core/clusters'
import { byId, type Drive, type Estate, within } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { BankWanted, ChangePorts } from '@/ports'
import type { ChangeKind, Evidence, Facts, StepContext } from '../../ChangeKind'
import { advise, must } from '../../parts/checks'
import { banksCheck, cleanDriveChecks, clusterChoice, type ClusterChoice } from '../../parts/clusterChoice'
import { movedBytes, movingParts, spreadOf } from '../../parts/growing'
import { nodesAnswer, rowChecks, switchOnAsFarAsPossible, switchRestartService } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import { rowReady } from '../../parts/rowReady'
import { waitForTask } from '../../parts/waitForTask'

type Step =
  | {
      readonly step: 'join'
      readonly systemId: string
      readonly nodeLocators: readonly string[]
      readonly joining: readonly string[]
    }
  | {
      readonly step: 'add'
      readonly systemId: string
      readonly poolLocator: string
      readonly banks: readonly BankWanted[]
      readonly rateRatio: number
    }
  | { readonly step: 'move'; readonly systemId: string; readonly poolLocator: string }

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
  const locatorOf = (driveId: string) => look.one('drives', driveId)?.locator ?? ''
  const banks: BankWanted[] = [
    ...choice.banks.map(bank => ({
      number: bank.number,
      nodeLocator: look.one('nodes', bank.nodeId)?.locator ?? '',
      cacheLocator: locatorOf(bank.cacheDriveId),
      capacityLocators: bank.capacityDriveIds.map(locatorOf),
    })),
    ...placed.map(({ cache, drive }) => ({
      number: cache.bank ?? 1,
      nodeLocator: look.one('nodes', drive.nodeId)?.locator ?? '',
      cacheLocator: cache.locator,
      capacityLocators: [drive.locator],
    })),
  ]
  const nodes = [...members, ...joining]
  const after =
    pool === undefined || scheme === undefined || pool.failureDomain === null
      ? undefined
      : clusterLayout(
          { nodes, cache: [], capacity: [...data, ...capacity] },
          {
            domain: pool.failureDomain,
            scheme,
            keepsRebuildReserve: pool.rebuildReserveBytes > 0n,
            snapshotShareRatio: 0,
          },
        )
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
    must(
      'pool',
      scheme !== undefined && pool?.state !== 'starting',
      scheme === undefined
        ? 'Choose a pool of a cluster.'
        : pool?.state === 'starting'
          ? `${pool.name} is still being laid out.`
          : `${pool?.name ?? ''} can grow.`,
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
        poolLocator: pool?.locator ?? '',
        banks,
        rateRatio: intent.ratePercent / 100,
      },
      words: 'Put the drives into their banks',
      seconds: 2,
    },
    {
      step: { step: 'move', systemId: intent.systemId, poolLocator: pool?.locator ?? '' },
      words: `Move ${formatBytes(moved)} of pieces`,
      seconds: 3,
      bytes: moved,
      parts: capacity.length === 0 ? [] : movingParts(estate, data, capacity, intent.ratePercent),
    },
  ]
}

async function runStep(step: Step, { facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  const nodes = await ports.of(step.systemId, 'nodes')
  const clusters = await ports.of(step.systemId, 'clusters')
  const spreadPools = await ports.of(step.systemId, 'spreadPools')
  if (step.step === 'join') {
    await switchRestartService(nodes, step.joining, false, ports)
    const known = await clusters.now()
    if (step.nodeLocators.some(locator => known?.nodeLocators.includes(locator) !== true))
      await clusters.setMembers(step.nodeLocators)
    await switchRestartService(nodes, step.joining, true, ports)
    return {}
  }
  if (step.step === 'add') {
    const held = new Set((await spreadPools.banksOf(step.poolLocator)).flatMap(bank => bank.capacityLocators))
    if (step.banks.every(bank => bank.capacityLocators.every(locator => held.has(locator)))) return {}
    const task = await spreadPools.addDrives(step.poolLocator, step.banks, step.rateRatio)
    return { moveTask: task ?? '' }
  }
  const isDone = async () => (await spreadPools.moving(step.poolLocator)) === null
  // The task that adding named says how it ended; without one, whatever moves is waited for.
  const task = facts['moveTask'] || (await spreadPools.moving(step.poolLocator))
  await waitForTask({ systemId: step.systemId, task, words: 'Moving pieces', isDone }, ports)
  return {}
}

async function undoStep(step: Step, _: object, ports: ChangePorts): Promise<string | undefined> {
  const spreadPools = await ports.of(step.systemId, 'spreadPools')
  const clusters = await ports.of(step.systemId, 'clusters')
  const nodes = await ports.of(step.systemId, 'nodes')
  if (step.step === 'move') return undefined
  if (step.step === 'add') {
    const added = new Set(step.banks.flatMap(bank => [bank.cacheLocator, ...bank.capacityLocators]))
    const banks = await spreadPools.banksOf(step.poolLocator)
    const held = banks.flatMap(bank => bank.capacityLocators).filter(locator => added.has(locator))
    if (held.length === 0) return undefined
    const isDone = async () => (await spreadPools.moving(step.poolLocator)) === null
    const wait = { systemId: step.systemId, isDone }
    await waitForTask({ ...wait, task: await spreadPools.moving(step.poolLocator), words: 'Moving pieces' }, ports)
    const task = await spreadPools.removeDrives(step.poolLocator, held, 0.5)
    await waitForTask({ ...wait, task, words: 'Moving back' }, ports)
    return undefined
  }
  await clusters.setMembers(step.nodeLocators.filter(locator => !step.joining.includes(locator)))
  return switchOnAsFarAsPossible(nodes, step.joining)
}

async function prove(intent: Intent, made: Plan<Step>, _: object, ports: ChangePorts): Promise<Evidence[]> {
  const spreadPools = await ports.of(intent.systemId, 'spreadPools')
  const add = made.steps.map(each => each.step).find(step => step.step === 'add')
  if (add?.step !== 'add') return []
  const held = await spreadPools.banksOf(add.poolLocator)
  const wanted = add.banks.flatMap(bank =>
    bank.capacityLocators.map(locator => ({ locator, cache: bank.cacheLocator })),
  )
  const inPlace = wanted.filter(({ locator, cache }) =>
    held.some(bank => bank.cacheLocator === cache && bank.capacityLocators.includes(locator)),
  )
  const pool = await (await ports.of(intent.systemId, 'pools')).at(add.poolLocator)
  return [
    {
      claim: 'Each drive is in its bank',
      holds: wanted.length > 0 && inPlace.length === wanted.length,
      measured: { inPlace: `${inPlace.length}`, planned: `${wanted.length}` },
    },
    {
      claim: 'Nothing moves any more, and the pool is whole',
      holds: (await spreadPools.moving(add.poolLocator)) === null && pool?.isReady === true,
      measured: { usableBytes: `${pool?.usableBytes ?? 0n}` },
    },
  ]
}
