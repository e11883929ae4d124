import type { ProvisionVolumeIntent as Intent } from '@/core/intents'
import {
  byId,
  nameByPattern,
  namePrefix,
  sequentialBytesPerSecond,
  type Estate,
  type EstateNeeds,
  type HostGroup,
  type Pool,
  type ServiceClass,
  type System,
  beginning,
  those,
  trendsOfPools,
} from '@/core/estate'
import { measures, rankPools, snapshotNeed, type RankedPool } from '@/core/classes'
import type { Effect, PlacementSketch, Plan, PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import { beyond, beyondCheck } from '../../parts/beyond'
import { there, warn } from '../../parts/checks'
import { fillEffects } from '../../parts/fill'
import { applicationOf } from '../../parts/keptFor'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'
import { around, seenBy } from '../../parts/places'
import { fitChecks, readSize } from '../../parts/size'
import { checksOf } from './checks'
import type { Step } from './steps'

/** Of the drives' rate that hosts leave to zeroing. */
const zeroingShare = 0.6
/** For a system to answer to a request. */
const requestSeconds = 0.35

/** The words of the naming pattern, from what has been chosen so far. */
const words = (intent: Intent, group: HostGroup | undefined) => ({ group: group?.name ?? '', purpose: intent.purpose })

export const needs = (intent: Intent): EstateNeeds => [those('volumes', 'name', intent.name), trendsOfPools]

/** The name on its system, and all of the pool where it takes its space at once. */
const claimsOf = (intent: Intent, pool: Pool | undefined): readonly string[] =>
  pool === undefined ? [] : [`volume:${pool.systemId}/${intent.name}`, ...(intent.isThin ? [] : [pool.id])]

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const serviceClass = look.one('serviceClasses', intent.classId)
  const ranking = rankingOf(estate, intent, serviceClass)
  const pool = look.one('pools', placeOf(intent, ranking, serviceClass))
  const system = look.one('systems', pool?.systemId)
  const group = look.one('hostGroups', seenBy(estate, intent))
  const initiators = estate.hosts.filter(host => host.hostGroupId === group?.id).flatMap(host => host.initiators)
  const kept = beyond(estate, system, group)
  const size = readSize(intent.size)
  return outlined<Step>(estate, {
    title: `Provision ${intent.name === '' ? 'a volume' : intent.name}${group === undefined ? '' : ` to ${group.name}`}`,
    checks: [
      ...checksOf(estate, intent, pool, group, initiators),
      ...classChecks(intent, ranking, pool, serviceClass),
      ...size.checks,
      ...(pool === undefined || size.bytes === 0n ? [] : fitChecks(pool, size.bytes, intent.isThin)),
      ...beyondCheck(system, group, kept),
    ],
    effects: [
      ...(pool === undefined ? [] : fillEffects(pool, size.bytes, intent.isThin ? 0n : size.bytes)),
      ...snapshotEffect(serviceClass, size.bytes, intent),
    ],
    oneWay: [
      'A volume can be made larger later, never smaller.',
      ...(intent.isThin ? [] : ['A thick volume cannot be made thin later.']),
    ],
    undo: {
      possible: true,
      how: `It can be removed; for ${estate.settings.holdingDays} days it can then be brought back.`,
    },
    steps: [
      ...(pool === undefined ? [] : [createStep(intent, pool, size.bytes, serviceClass)]),
      ...(group === undefined || system === undefined ? [] : [mapStep(system, group, initiators, kept)]),
    ],
    reads: look.reads,
    claims: claimsOf(intent, pool),
    proof: proofWords(group),
    ...(ranking.length === 0 ? {} : { sketch: placementSketch(ranking, pool?.id) }),
    suggestions: { name: suggestedName(estate, intent, group) },
  })
}

const proofWords = (group: HostGroup | undefined) =>
  group === undefined
    ? 'The system is asked for the volume again; without a mapping no host can test it.'
    : `A host of ${group.name} logs in, finds it by its WWN, writes to it and reads the same back; a host outside must not see it.`

/** What changes in a day where nothing is said of it. */
const usualChangePercent = 2

/** The room that its snapshots will need under its class. */
function snapshotEffect(serviceClass: ServiceClass | undefined, bytes: bigint, { changePercent }: Intent): Effect[] {
  const percent = changePercent ?? usualChangePercent
  const need = serviceClass === undefined ? undefined : snapshotNeed(serviceClass, bytes, percent / 100)
  if (need === undefined) return []
  return [
    {
      figure: 'snapshotBytes',
      label: `Its snapshots, once it is full, at ${percent}% a day`,
      unit: 'bytes',
      before: null,
      after: `${need}`,
    },
  ]
}

const rankingOf = (estate: Estate, intent: Intent, serviceClass: ServiceClass | undefined) =>
  rankPools(estate.pools, {
    sizeBytes: readSize(intent.size).bytes,
    isThin: intent.isThin,
    serviceClass,
    application: applicationOf(intent.application),
    ...around(estate, [seenBy(estate, intent)]),
  })

/** The pool that was chosen by hand, else the best place under the class; without a class nothing is chosen for anybody. */
function placeOf(intent: Intent, ranking: readonly RankedPool[], serviceClass: ServiceClass | undefined) {
  if (intent.poolId !== '' || serviceClass === undefined) return intent.poolId
  return ranking.find(({ out }) => out.length === 0)?.poolId
}

const placementSketch = (ranking: readonly RankedPool[], chosenId: string | undefined): PlacementSketch => ({
  of: 'placement',
  chosenId: chosenId ?? null,
  measures,
  pools: ranking.map(({ poolId, ...ranked }) => ({ id: poolId, ...ranked })),
})

/** That the class is there, and that the place keeps what it promises. */
function classChecks(
  intent: Intent,
  ranking: readonly RankedPool[],
  pool: Pool | undefined,
  serviceClass: ServiceClass | undefined,
): PlanCheck[] {
  if (intent.classId === undefined || intent.classId === '') return []
  const [first] = ranking
  const ranked = ranking.find(each => each.poolId === pool?.id)
  return [
    there('class', serviceClass, each => `${each.name} is there.`, 'The class is not there any more.', {
      field: 'classId',
    }),
    ...(pool === undefined || ranked === undefined
      ? []
      : [
          warn(
            'keeps-promises',
            ranked.out.length === 0,
            ranked.out.length === 0
              ? `${pool.name} scores ${Math.round(ranked.score)} of 100${first?.poolId === pool.id ? ', the most of all' : ''}.`
              : `${pool.name} does not keep ${serviceClass?.name ?? 'the class'}: ${ranked.out.join('; ')}.`,
            { field: 'poolId', remedy: 'Leave the pool to the class.' },
          ),
        ]),
  ]
}

function createStep(intent: Intent, pool: Pool, bytes: bigint, serviceClass: ServiceClass | undefined): Outlined<Step> {
  const isZeroed = !intent.isThin
  return {
    words: `Create ${intent.name || 'the volume'}, ${formatBytes(bytes)}, ${intent.isThin ? 'thin' : 'thick: its space is zeroed first'}`,
    seconds: isZeroed ? 1 : requestSeconds,
    ...(isZeroed ? { bytes, parts: [{ name: 'drives', bytesPerSecond: poolBytesPerSecond(pool) }] } : {}),
    step: {
      step: 'create',
      systemId: pool.systemId,
      name: intent.name,
      poolLocator: pool.locator,
      sizeBytes: `${bytes}`,
      isThin: intent.isThin,
      ...(serviceClass === undefined ? {} : { classId: serviceClass.id }),
      application: applicationOf(intent.application),
    },
  }
}

const mapStep = (
  system: System,
  group: HostGroup,
  initiators: readonly string[],
  kept: ReturnType<typeof beyond>,
): Outlined<Step> => ({
  words: `Map it to ${group.name}`,
  seconds: requestSeconds,
  step: { step: 'map', systemId: system.id, groupName: group.name, initiators, kept },
})

function suggestedName(estate: Estate, intent: Intent, group: HostGroup | undefined): string {
  const taken = new Set(estate.volumes.map(volume => volume.name))
  return nameByPattern(estate.settings.volumeNaming, words(intent, group), taken)
}

/** For a name yet to be suggested: the names that the pattern would give, so that its number counts past them. */
export function needsAlso(estate: Estate, intent: Intent): EstateNeeds | undefined {
  const prefix = namePrefix(
    estate.settings.volumeNaming,
    words(intent, byId(estate.hostGroups, seenBy(estate, intent))),
  )
  return intent.name !== '' || prefix === '' ? undefined : [beginning('volumes', prefix)]
}

/** Zeroing writes to all of a pool's drives at once, beside its hosts. */
const poolBytesPerSecond = (pool: Pool) =>
  pool.groupSizes.reduce((sum, drives) => sum + drives, 0) *
  sequentialBytesPerSecond({ ...pool.driveKind, rotationSpeedRpm: null }) *
  zeroingShare
