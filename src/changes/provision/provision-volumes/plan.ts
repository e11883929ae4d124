import { placeTogether, rankPools } from '@/core/classes'
import {
  byId,
  readVolumeLines,
  type Estate,
  type Pool,
  type ReadLines,
  type ServiceClass,
  type System,
  type VolumeLineAsked,
} from '@/core/estate'
import type { ProvisionVolumesIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { countAtStart, countWords } from '@/core/units'
import { beyond, beyondCheck } from '../../parts/beyond'
import { answers, rule, there } from '../../parts/checks'
import { applicationOf, keptCheck } from '../../parts/keptFor'
import { lookInto } from '../../parts/look'
import { initiatorsOf, mappedCheck, writersCheck } from '../../parts/mapping'
import { outlined, type Outlined } from '../../parts/outline'
import { around, seenBy } from '../../parts/places'
import { groupChecks } from './groupChecks'
import { linesCheck, namesCheck, roomCheck, stateCheck } from './lineChecks'
import type { Step } from './steps'

/** Volumes that one step makes: it gives its place back between such steps, and can be stopped there. */
const inOneStep = 25
/** For a system to answer to what one volume needs. */
const requestSeconds = 0.12
/** Sizes go to systems as JSON numbers, which state whole bytes exactly up to here. */
const largestBytes = BigInt(Number.MAX_SAFE_INTEGER)

interface Placed {
  readonly volume: VolumeLineAsked
  readonly pool: Pool | undefined
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const read = readVolumeLines(intent.list)
  const serviceClass = look.one('serviceClasses', intent.classId)
  const group = look.one('hostGroups', seenBy(estate, intent))
  const placed = placesOf(estate, intent, read, serviceClass)
  const pools = look.some(
    'pools',
    placed.flatMap(({ pool }) => pool?.id ?? []),
  )
  const systems = look.some(
    'systems',
    pools.map(({ systemId }) => systemId),
  )
  return { estate, group, intent, look, placed, pools, read, serviceClass, systems }
}
type Seen = ReturnType<typeof see>

const sumOf = (placed: readonly Placed[], pool: Pool) =>
  placed.reduce((sum, each) => (each.pool?.id === pool.id ? sum + each.volume.sizeBytes : sum), 0n)

/** The pool of each: the one that was chosen; or the best for all; or, under a class, the best for each with all of them placed. */
function placesOf(estate: Estate, intent: Intent, read: ReadLines, serviceClass: ServiceClass | undefined): Placed[] {
  const { volumes } = read
  const chosen = byId(estate.pools, intent.poolId)
  const application = applicationOf(intent.application)
  const asked = { isThin: intent.isThin, serviceClass, application, ...around(estate, [seenBy(estate, intent)]) }
  if (chosen !== undefined || serviceClass === undefined) return volumes.map(volume => ({ volume, pool: chosen }))
  if (intent.isTogether) {
    const sizeBytes = volumes.reduce((sum, each) => sum + each.sizeBytes, 0n)
    const [best] = rankPools(estate.pools, { ...asked, sizeBytes })
    const pool = best === undefined || best.out.length > 0 ? undefined : byId(estate.pools, best.poolId)
    return volumes.map(volume => ({ volume, pool }))
  }
  const { poolIds } = placeTogether(volumes, estate.pools, asked)
  return volumes.map((volume, index) => ({ volume, pool: byId(estate.pools, poolIds[index]) }))
}

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { group, look, placed, pools, read } = seen
  return outlined<Step>(estate, {
    title: `Provision ${countWords(read.volumes.length, 'volume', 'volumes')}${group === undefined ? '' : ` to ${group.name}`}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: ['A volume can be made larger later, never smaller.'],
    undo: {
      possible: true,
      how: `Each can be removed; for ${estate.settings.holdingDays} days it can then be brought back.`,
    },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [
      ...placed.flatMap(({ volume, pool }) => (pool === undefined ? [] : [`volume:${pool.systemId}/${volume.name}`])),
      ...(intent.isThin ? [] : pools.map(({ id }) => id)),
    ],
    proof:
      group === undefined
        ? 'Every volume is read again from its system, with its name and size.'
        : `Every volume is read again from its system, with its name and size; a host of ${group.name} logs in and finds all of them by their WWNs.`,
  })
}

function checksOf(seen: Seen): readonly PlanCheck[] {
  const { estate, group, intent, placed, pools, read, serviceClass, systems } = seen
  const homeless = placed.filter(({ pool }) => pool === undefined)
  const tooLarge = read.volumes.filter(({ sizeBytes }) => sizeBytes <= 0n || sizeBytes > largestBytes)
  return [
    linesCheck(read),
    namesCheck(estate, read),
    rule(
      'sizes',
      tooLarge.length === 0,
      'All sizes can be stated exactly.',
      'A size is above zero and at most 8 PiB.',
      { field: 'list' },
    ),
    ...(intent.classId === ''
      ? []
      : [
          there('class', serviceClass, each => `${each.name} is there.`, 'The class is not there any more.', {
            field: 'classId',
          }),
        ]),
    rule(
      'pool',
      read.volumes.length > 0 && homeless.length === 0,
      `They come from ${countWords(pools.length, 'pool', 'pools')}: ${pools.map(({ name }) => name).join(', ')}.`,
      homeless.length > 0 && serviceClass !== undefined
        ? `${countAtStart(homeless.length, 'volume finds', 'volumes find')} no pool that keeps ${serviceClass.name} with all of them placed.`
        : 'Choose the pool that they come from, or a class that finds it.',
      { field: 'poolId' },
    ),
    ...pools.flatMap(pool => keptCheck(pool, applicationOf(intent.application))),
    ...pools.flatMap(pool => [stateCheck(pool), roomCheck(pool, sumOf(placed, pool), intent.isThin)]),
    ...systems.map(answers),
    ...groupChecks({ estate, name: intent.consistencyGroup ?? '', count: read.volumes.length, systems }),
    mappedCheck(group, initiatorsOf(estate, group), 'No host group: nobody will see them until they are mapped.'),
    ...writersCheck(estate, group, 'each of them'),
    ...systems.flatMap(system => beyondCheck(system, group, beyond(estate, system, group))),
  ]
}

const effectsOf = ({ placed, pools }: Seen): readonly Effect[] =>
  pools.flatMap(pool => [
    {
      figure: `volumes/${pool.id}`,
      label: `New in ${pool.name}`,
      unit: 'count' as const,
      before: null,
      after: placed.filter(each => each.pool?.id === pool.id).length,
    },
    {
      figure: `provisionedBytes/${pool.id}`,
      label: `Provisioned from ${pool.name}`,
      unit: 'bytes' as const,
      before: `${pool.provisionedBytes}`,
      after: `${pool.provisionedBytes + sumOf(placed, pool)}`,
    },
  ])

/** Steps of as many volumes as one step makes, system by system; the mappings of each after it, and the group of all at the end. */
function stepsOf(seen: Seen): Outlined<Step>[] {
  return seen.systems.flatMap(system => {
    const own = seen.placed.filter(({ pool }) => pool?.systemId === system.id)
    const count = Math.ceil(own.length / inOneStep)
    const batches = Array.from({ length: count }, (_, index) => ({ index, batch: `${system.id}/${index}` }))
    return [
      ...batches.flatMap(({ index, batch }) =>
        batchSteps(seen, system, own.slice(index * inOneStep, (index + 1) * inOneStep), batch),
      ),
      ...groupStep(
        seen,
        system,
        batches.map(({ batch }) => batch),
      ),
    ]
  })
}

function groupStep({ intent, read }: Seen, system: System, batches: readonly string[]): Outlined<Step>[] {
  const { consistencyGroup: name = '' } = intent
  if (name === '') return []
  return [
    {
      words: `Put all ${read.volumes.length} into the consistency group ${name}`,
      seconds: requestSeconds,
      step: { step: 'group', batches, systemId: system.id, name },
    },
  ]
}

function batchSteps(
  { estate, group, intent, serviceClass }: Seen,
  system: System,
  some: readonly Placed[],
  batch: string,
): Outlined<Step>[] {
  const words = `${some[0]?.volume.name ?? ''}${some.length > 1 ? ` to ${some.at(-1)?.volume.name ?? ''}` : ''}`
  const create: Outlined<Step> = {
    words: `Create ${words} on ${system.name}`,
    seconds: requestSeconds * some.length,
    step: {
      step: 'create',
      batch,
      systemId: system.id,
      volumes: some.map(({ volume, pool }) => ({
        name: volume.name,
        sizeBytes: `${volume.sizeBytes}`,
        poolLocator: pool?.locator ?? '',
      })),
      isThin: intent.isThin,
      ...(serviceClass === undefined ? {} : { classId: serviceClass.id }),
      application: applicationOf(intent.application),
    },
  }
  if (group === undefined) return [create]
  const initiators = initiatorsOf(estate, group)
  return [
    create,
    {
      words: `Map ${words} to ${group.name}`,
      seconds: requestSeconds * 2 * some.length,
      step: { step: 'map', batch, systemId: system.id, groupName: group.name, initiators },
    },
  ]
}
