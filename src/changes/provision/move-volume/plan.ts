import { rankPools } from '@/core/classes'
import { byId, canBeAsked, type Estate, type Pool, type Volume } from '@/core/estate'
import type { MoveVolumeIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { spaceOf } from '@/core/snapshots'
import { formatBytes } from '@/core/units'
import { advise, answers, rule } from '../../parts/checks'
import { countedName, takeStep } from '../../parts/copies'
import { sharedBy } from '../../parts/heldBack'
import { driveShare } from '../../parts/driveShare'
import { fillSketch, freeBytesOf } from '../../parts/fill'
import { inUse } from '../../parts/inUse'
import { keptCheck } from '../../parts/keptFor'
import { lookInto } from '../../parts/look'
import { initiatorsOf } from '../../parts/mapping'
import { outlined, type Outlined } from '../../parts/outline'
import { around } from '../../parts/places'
import { brokenPromises } from '../../parts/promiseChecks'
import type { Step } from './steps'

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const from = look.one('pools', volume?.poolId)
  const classId = intent.classId === '' ? (volume?.classId ?? '') : intent.classId
  const serviceClass = look.one('serviceClasses', classId)
  const own = estate.snapshots.filter(each => each.volumeId === volume?.id)
  const movedBytes =
    (volume === undefined ? 0n : volume.isThin ? volume.writtenBytes : volume.sizeBytes) + spaceOf(own).totalBytes
  const others = estate.pools.filter(each => each.systemId === volume?.systemId && each.id !== from?.id)
  // What moves has been written already: a thin volume must find room for that much.
  const application = volume?.application ?? null
  const seeing = estate.mappings.filter(each => each.volumeId === volume?.id).map(each => each.hostGroupId)
  const asked = { sizeBytes: movedBytes, isThin: false, serviceClass, application, ...around(estate, seeing) }
  const [best] = rankPools(others, asked)
  const poolId = intent.poolId !== '' ? intent.poolId : best?.out.length === 0 ? best.poolId : ''
  const to = look.one('pools', poolId)
  const clones = estate.volumes.filter(each => own.some(({ id }) => id === each.cloneOfId))
  const reader = readerOf(estate, volume)
  return { best, clones, estate, from, intent, look, movedBytes, own, reader, serviceClass, system, to, volume }
}
type Seen = ReturnType<typeof see>

/** A host that sees the volume, and can read it before and after. */
function readerOf(estate: Estate, volume: Volume | undefined) {
  const groups = new Set(estate.mappings.filter(each => each.volumeId === volume?.id).map(each => each.hostGroupId))
  const host = estate.hosts.filter(canBeAsked).find(each => groups.has(each.hostGroupId))
  const group = byId(estate.hostGroups, host?.hostGroupId)
  return host === undefined || group === undefined
    ? undefined
    : { host, groupName: group.name, initiators: initiatorsOf(estate, group) }
}

export function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(estate, intent)
  const { from, look, movedBytes, reader, to, volume } = seen
  return outlined<Step>(estate, {
    title: `Move ${volume?.name ?? 'a volume'} to ${to?.name ?? 'another pool'}`,
    checks: checksOf(seen, now),
    effects: effectsOf(seen),
    undo: {
      possible: true,
      how: `While it moves it can be stopped, and stays in ${from?.name ?? 'its pool'}; afterwards it can be moved back.`,
    },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [volume?.id, to?.id].filter(id => id !== undefined),
    proof:
      reader === undefined
        ? 'The system is asked from which pool it comes; no host sees it that could read it.'
        : `${reader.host.name} reads sixteen places of what the volume is now before it moves, and again when it has arrived: they must be the same, under the same WWN.`,
    ...(to === undefined ? {} : { sketch: fillSketch(to, volume?.sizeBytes ?? movedBytes) }),
  })
}

function checksOf(seen: Seen, now: Date): readonly PlanCheck[] {
  const { clones, estate, intent, movedBytes, serviceClass, system, to, volume } = seen
  const source = estate.snapshots.find(each => each.id === volume?.cloneOfId)
  return [
    inUse(volume, volume => `${volume.name} is in use.`),
    ...(system === undefined ? [] : [answers(system)]),
    poolCheck(seen),
    ...(to === undefined ? [] : [roomCheck(to, movedBytes), ...keptCheck(to, volume?.application ?? null)]),
    rule(
      'alone',
      volume?.cloneOfId == null && clones.length === 0,
      'It shares with no other volume.',
      volume?.cloneOfId == null
        ? `${sharedBy(clones)} with its snapshots, and would be left behind.`
        : `It shares with ${source?.name ?? 'a snapshot'} of another volume.`,
      { remedy: 'Split the clones first.' },
    ),
    ...(intent.classId !== '' && serviceClass === undefined
      ? [rule('class', false, '', 'The class is not there any more.', { field: 'classId' })]
      : []),
    ...(serviceClass === undefined || volume === undefined || to === undefined
      ? []
      : brokenPromises(estate, [{ ...volume, poolId: to.id }], serviceClass, now)),
    rateCheck(seen),
  ]
}

const roomCheck = (to: Pool, movedBytes: bigint): PlanCheck =>
  rule(
    'fits',
    movedBytes <= freeBytesOf(to),
    `${to.name} has ${formatBytes(freeBytesOf(to))} left.`,
    `${to.name} has ${formatBytes(freeBytesOf(to))} left; ${formatBytes(movedBytes)} would move.`,
    { field: 'poolId', remedy: 'Choose another pool, or remove snapshots first.' },
  )

const muchPercent = 60

const rateCheck = ({ from, intent: { ratePercent }, to }: Seen): PlanCheck =>
  advise(
    'rate',
    ratePercent <= muchPercent,
    `Hosts have ${100 - ratePercent}% of the drives of both pools meanwhile.`,
    `Hosts have only ${100 - ratePercent}% of the drives of both pools meanwhile: everything in ${from?.name ?? 'the one'} and ${to?.name ?? 'the other'} answers more slowly.`,
    { field: 'ratePercent' },
  )

function poolCheck({ best, from, to, volume }: Seen): PlanCheck {
  const isReady = to !== undefined && (to.state === 'fine' || to.state === 'degraded')
  const isElsewhere = to !== undefined && (to.id === from?.id || to.systemId !== volume?.systemId)
  return rule(
    'pool',
    isReady && !isElsewhere,
    `${to?.name ?? 'The pool'} is ready.`,
    to === undefined
      ? best === undefined
        ? 'Its system has no other pool.'
        : `No other pool of its system will do. ${best.name}: ${best.out.join(', ')}.`
      : isElsewhere
        ? to.id === from?.id
          ? `It is in ${to.name} already.`
          : 'That pool is of another system: there it is mirrored first, by a change of its own.'
        : `${to.name} is ${to.state}.`,
    { field: 'poolId' },
  )
}

function effectsOf({ estate, from, intent, movedBytes, serviceClass, to, volume }: Seen): readonly Effect[] {
  if (from === undefined || to === undefined || volume === undefined) return []
  const free = (pool: Pool, bytes: bigint): Effect => ({
    figure: `freeBytes/${pool.id}`,
    label: `Left to write in ${pool.name}`,
    unit: 'bytes',
    before: `${freeBytesOf(pool)}`,
    after: `${freeBytesOf(pool) + bytes}`,
  })
  return [
    { figure: 'pool', label: 'Comes from', unit: 'words', before: from.name, after: to.name },
    {
      figure: 'movedBytes',
      label: 'What moves, with its snapshots',
      unit: 'bytes',
      before: null,
      after: `${movedBytes}`,
    },
    free(from, movedBytes),
    free(to, -movedBytes),
    ...(intent.classId === ''
      ? []
      : [
          {
            figure: 'class',
            label: 'Service class',
            unit: 'words' as const,
            before: byId(estate.serviceClasses, volume.classId)?.name ?? 'none',
            after: serviceClass?.name ?? 'none',
          },
        ]),
  ]
}

function stepsOf(seen: Seen): Outlined<Step>[] {
  const { from, intent, movedBytes, serviceClass, to, volume } = seen
  if (volume === undefined || from === undefined || to === undefined) return []
  const about = { systemId: volume.systemId, volumeLocator: volume.locator, naa: volume.naa }
  return [
    ...readSteps(seen, volume, from, to),
    {
      words: `Move it to ${to.name}`,
      seconds: 1,
      bytes: movedBytes,
      parts: [driveShare(from, intent.ratePercent), driveShare(to, intent.ratePercent)],
      step: {
        step: 'move',
        ...about,
        fromPoolId: from.id,
        fromClassId: volume.classId ?? '',
        poolLocator: to.locator,
        ratePercent: intent.ratePercent,
        sizeBytes: `${volume.sizeBytes}`,
      },
    },
    ...(intent.classId === '' || serviceClass === undefined
      ? []
      : [
          {
            words: `Put it under ${serviceClass.name}`,
            seconds: 0.1,
            step: {
              step: 'class' as const,
              volumeId: volume.id,
              classId: serviceClass.id,
              before: volume.classId,
            },
          },
        ]),
  ]
}

/** What a host reads of the volume before it moves: of a snapshot, which nobody writes meanwhile. */
function readSteps({ estate, reader }: Seen, volume: Volume, from: Pool, to: Pool): Outlined<Step>[] {
  if (reader === undefined) return []
  const { host, groupName, initiators } = reader
  const name = countedName(estate, volume, 'before-move')
  return [
    takeStep(volume, from, name, `before it moved to ${to.name}`, `Take ${name}, what it is now`),
    {
      words: `${host.name} reads sixteen places of it`,
      seconds: 1.5,
      step: {
        step: 'sum',
        systemId: volume.systemId,
        volumeLocator: volume.locator,
        naa: volume.naa,
        sizeBytes: `${volume.sizeBytes}`,
        agentAddress: host.agentAddress,
        hostName: host.name,
        groupName,
        initiators,
      },
    },
  ]
}
