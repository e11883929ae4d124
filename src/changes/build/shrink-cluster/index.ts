import { shrinkClusterIntent, type ShrinkClusterIntent as Intent } from '@/core/intents'
import { widthOf } from '@/core/clusters'
import { provisionableBytes, type Estate, within } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { advise, must, rule } from '../../parts/checks'
import { layoutOn, movedBytes, movingParts, spreadOf } from '../../parts/growing'
import { rowChecks } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import { type Step, runStep, prove } from './steps'

export const shrinkCluster: ChangeKind<Intent, Step> = {
  ...shrinkClusterIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  runStep,
  undoStep: step =>
    Promise.resolve(
      step.step === 'empty' ? 'What has moved stays where it is; drives that have left are unassigned.' : undefined,
    ),
  prove,
  collects: ({ systemId }) => [systemId],
  reverse: () => undefined,
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const pool = look.one('pools', intent.poolId)
  const scheme = spreadOf(pool)
  const current = estate.drives.filter(drive => drive.poolId === intent.poolId)
  const chosen = new Set(intent.driveIds)
  const caches = current.filter(drive => drive.role === 'cache' && chosen.has(drive.id))
  const leaving = current.filter(
    drive => chosen.has(drive.id) || caches.some(cache => cache.nodeId === drive.nodeId && cache.bank === drive.bank),
  )
  const data = current.filter(drive => drive.role === 'data')
  const going = data.filter(drive => leaving.includes(drive))
  const staying = data.filter(drive => !leaving.includes(drive))
  const nodes = estate.nodes.filter(node => current.some(drive => drive.nodeId === node.id))
  const left = nodes.filter(node => staying.some(drive => drive.nodeId === node.id))
  const gone = nodes.filter(node => !left.includes(node))
  const after = layoutOn(pool, left, staying)
  const snapshotRatio =
    pool === undefined
      ? 0
      : Number(pool.snapshotReserveBytes) / Math.max(1, Number(provisionableBytes(pool) + pool.snapshotReserveBytes))
  const room = after === undefined ? 0n : BigInt(Math.floor(Number(after.freeBytes) * (1 - snapshotRatio)))
  const width = scheme === undefined ? 0 : widthOf(scheme)
  const moved = pool === undefined || scheme === undefined ? 0n : movedBytes(pool, scheme, going, data)
  const wide = (after?.domains.length ?? 0) >= width
  const fits = room >= (pool?.writtenBytes ?? 0n)
  look.at('drives', leaving)
  return {
    ...{ after, caches, estate, fits, going, gone, intent, leaving, left },
    ...{ look, moved, pool, room, scheme, staying, system, wide, width },
  }
}

type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { going, gone, leaving, look, pool } = seen

  return outlined<Step>(estate, {
    title: `Take ${going.length} drives${gone.length > 0 ? ` and ${gone.map(node => node.name).join(', ')}` : ''} out of ${pool?.name ?? '…'}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: ['What has moved off a drive does not move back by itself.'],
    undo: { possible: false, how: 'The drives can be added again by another change.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [...leaving.map(drive => drive.id), ...(pool === undefined ? [] : [pool.id]), `cluster:${intent.systemId}`],
    proof: 'The pool is asked for its banks again: none of the drives is in it, and they are unassigned.',
  })
}

function checksOf({
  after,
  caches,
  estate,
  fits,
  going,
  pool,
  room,
  scheme,
  system,
  wide,
  width,
}: Seen): readonly PlanCheck[] {
  return [
    ...rowChecks(system, estate.nodes),
    rule('pool', scheme !== undefined, `${pool?.name ?? ''} can give drives away.`, 'Choose a pool of a cluster.', {
      field: 'poolId',
    }),
    rule(
      'pool-whole',
      pool?.state === 'fine',
      'Nothing of it is lost.',
      `${pool?.name ?? 'The pool'} is ${pool?.state ?? 'gone'}.`,
      { remedy: 'Let it make itself whole first.' },
    ),
    rule(
      'drives',
      going.length > 0,
      `${going.length} capacity drives leave${caches.length > 0 ? ` with ${caches.length} cache drives` : ''}.`,
      'Choose drives of the pool.',
      { field: 'driveIds' },
    ),
    ...roomChecks({ wide, after, width, fits, room, pool }),
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
    { figure: 'unprotected', label: 'Unprotected meanwhile', unit: 'bytes', before: null, after: '0' },
  ]
}

function stepsOf({ estate, going, gone, intent, leaving, left, moved, pool, staying }: Seen): Outlined<Step>[] {
  if (pool === undefined) return []
  return [
    {
      step: {
        step: 'empty',
        systemId: intent.systemId,
        poolLocator: pool.locator,
        driveLocators: leaving.map(drive => drive.locator),
        rateRatio: intent.ratePercent / 100,
      },
      words: `Move ${formatBytes(moved)} of pieces to the other drives`,
      seconds: 3,
      bytes: moved,
      parts: going.length === 0 || staying.length === 0 ? [] : movingParts(estate, going, staying, intent.ratePercent),
    },
    ...(gone.length === 0
      ? []
      : [
          {
            step: { step: 'part' as const, systemId: intent.systemId, staying: left.map(node => node.locator) },
            words: `Let ${gone.map(node => node.name).join(', ')} go`,
            seconds: 1,
          },
        ]),
  ]
}

/** That enough domains and enough room are left. */
const roomChecks = ({
  wide,
  after,
  width,
  fits,
  room,
  pool,
}: Pick<Seen, 'wide' | 'after' | 'width' | 'fits' | 'room' | 'pool'>): PlanCheck[] => [
  rule(
    'too-few-domains',
    wide,
    `${after?.domains.length ?? 0} failure domains are left for stripes of ${width} pieces.`,
    `Only ${after?.domains.length ?? 0} failure domains would be left, and a stripe has ${width} pieces.`,
    { field: 'driveIds', remedy: 'Leave drives in more domains.' },
  ),
  must(
    'capacity',
    !wide || fits,
    fits
      ? `${formatBytes(room)} is left for volumes.`
      : `${formatBytes(pool?.writtenBytes ?? 0n)} is written, and only ${formatBytes(room)} would be left.`,
    { field: 'driveIds', remedy: 'Add drives elsewhere first, or remove volumes.' },
  ),
  advise(
    'promised',
    room >= (pool?.provisionedBytes ?? 0n),
    'What is promised to volumes still fits.',
    'More is promised to volumes than would be left.',
    { field: 'driveIds' },
  ),
]
