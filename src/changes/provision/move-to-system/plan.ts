import { byId, canBeAsked, type Estate, type Host, type Pool } from '@/core/estate'
import type { MoveToSystemIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import { beyond } from '../../parts/beyond'
import { advise, rule, warn } from '../../parts/checks'
import { countedName } from '../../parts/copies'
import { fillSketch, freeBytesOf } from '../../parts/fill'
import { lookInto } from '../../parts/look'
import { initiatorsOf } from '../../parts/mapping'
import { bothEnds, endChecks } from '../../parts/mirrorChecks'
import { outlined } from '../../parts/outline'
import { brokenPromises } from '../../parts/promiseChecks'
import { stepsOf, type Moved, type Shown, type Step } from './steps'

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const ends = bothEnds(look, estate, intent)
  const { volume } = ends
  const serviceClass = look.one('serviceClasses', volume?.classId)
  const mappings = estate.mappings.filter(each => each.volumeId === volume?.id)
  const groups = mappings.map(({ hostGroupId }) => byId(estate.hostGroups, hostGroupId ?? undefined))
  const hosts = estate.hosts.filter(
    each => each.initiators.length > 0 && groups.some(group => group?.id === each.hostGroupId),
  )
  const snapshots = estate.snapshots.filter(each => each.volumeId === volume?.id)
  const days = serviceClass?.holdingDays ?? estate.settings.holdingDays
  const shown: Shown[] = mappings.map((each, index) => ({
    locator: each.locator,
    groupName: each.groupName,
    initiators: initiatorsOf(estate, groups[index]),
  }))
  return { ...ends, days, groups, hosts, mappings, serviceClass, shown, snapshots }
}
type Seen = ReturnType<typeof see>

export function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(estate, intent)
  const { days, hosts, look, movedBytes, snapshots, system, to, toSystem, volume } = seen
  const moved = movedOf(seen)
  return outlined<Step>(estate, {
    title: `Move ${volume?.name ?? 'a volume'} to ${toSystem?.name ?? 'another system'}`,
    checks: checksOf(seen, now),
    effects: effectsOf(seen),
    oneWay:
      snapshots.length === 0
        ? []
        : [
            `Its snapshots stay on ${system?.name ?? 'its system'} with what it was, and go with that after ${countWords(days, 'day', 'days')}.`,
          ],
    undo: {
      possible: true,
      how: `Until it is switched it can be stopped, and nothing has moved; afterwards it can be moved back, and what it was stays in holding for ${countWords(days, 'day', 'days')}.`,
    },
    steps: moved === undefined ? [] : stepsOf(moved),
    reads: look.reads,
    claims: [volume?.id, to?.id].filter(id => id !== undefined),
    proof:
      hosts.length === 0
        ? 'Both systems are asked; no host sees it that could read it.'
        : 'One of its hosts reads sixteen places of one instant from both systems before it is switched, and once more afterwards: they must be the same. Every host must see it under its WWN, by ways to its new system only.',
    ...(to === undefined ? {} : { sketch: fillSketch(to, volume?.sizeBytes ?? movedBytes) }),
  })
}

/** All that the steps need; undefined while something is not chosen. */
function movedOf(seen: Seen): Moved | undefined {
  const { estate, from, hosts, intent, system, to, toSystem, volume } = seen
  if (volume === undefined || from === undefined || to === undefined || system === undefined || toSystem === undefined)
    return undefined
  const { ratePercent } = intent
  return {
    ...{
      days: seen.days,
      from,
      movedBytes: seen.movedBytes,
      ratePercent,
      shown: seen.shown,
      system,
      to,
      toSystem,
      volume,
    },
    hosts: hosts.filter(canBeAsked),
    snapshotName: countedName(estate, volume, 'before-switch'),
    formerName: countedName(estate, volume, 'moved-away'),
  }
}

function checksOf(seen: Seen, now: Date): readonly PlanCheck[] {
  const { estate, serviceClass, to, volume } = seen
  return [
    ...endChecks(seen),
    ...hostChecks(seen),
    ...(serviceClass === undefined || volume === undefined || to === undefined
      ? []
      : brokenPromises(estate, [{ ...volume, poolId: to.id }], serviceClass, now)),
    ...meanwhile(seen),
  ]
}

const named = (hosts: readonly Pick<Host, 'name'>[]) => hosts.map(({ name }) => name).join(', ')

/** That whoever sees it now will see it at the other system, and can say so before it is switched. */
function hostChecks({ estate, groups, hosts, mappings, system }: Seen): readonly PlanCheck[] {
  const silent = hosts.filter(each => !canBeAsked(each))
  const strange = mappings.filter((_, index) => groups[index] === undefined)
  const strangers = groups.flatMap(group => beyond(estate, system, group))
  return [
    rule(
      'hosts',
      silent.length === 0 && strange.length === 0,
      hosts.length === 0
        ? 'No host sees it.'
        : `${named(hosts)} can say what ${hosts.length === 1 ? 'it sees' : 'they see'}.`,
      strange.length > 0
        ? `${strange.map(({ groupName }) => groupName).join(', ')} is a group of which no host is registered: it would lose the volume.`
        : `${named(silent)} has no agent that could say that it sees the new ways: it would lose the volume.`,
      { remedy: 'Register the hosts with their agents, or take the volume from them first.' },
    ),
    rule(
      'strangers',
      strangers.length === 0,
      'Nobody sees it of whom nothing is known.',
      `${strangers.slice(0, 3).join(', ')} ${strangers.length === 1 ? 'sees it and is' : 'see it and are'} of no registered host: it would be lost to them.`,
      { remedy: 'Register their hosts first.' },
    ),
  ]
}

const muchPercent = 60

function meanwhile({ days, from, intent: { ratePercent }, snapshots, system, to }: Seen): readonly PlanCheck[] {
  const pools = [from?.name ?? 'the one', to?.name ?? 'the other'] as const
  return [
    advise(
      'rate',
      ratePercent <= muchPercent,
      `Hosts have ${100 - ratePercent}% of the drives of both pools meanwhile.`,
      `Hosts have only ${100 - ratePercent}% of the drives of both pools meanwhile: everything in ${pools[0]} and ${pools[1]} answers more slowly.`,
      { field: 'ratePercent' },
    ),
    ...(snapshots.length === 0
      ? []
      : [
          warn(
            'snapshots',
            false,
            `${countAtStart(snapshots.length, 'snapshot stays', 'snapshots stay')} on ${system?.name ?? 'its system'} with what it was, for ${countWords(days, 'day', 'days')}.`,
            { remedy: 'Clone what you want to keep longer.' },
          ),
        ]),
  ]
}

function effectsOf({ days, from, movedBytes, system, to, toSystem, volume }: Seen): readonly Effect[] {
  if (from === undefined || to === undefined || volume === undefined) return []
  const left = (pool: Pool, bytes: bigint): Effect => ({
    figure: `freeBytes/${pool.id}`,
    label: `Left to write in ${pool.name}`,
    unit: 'bytes',
    before: `${freeBytesOf(pool)}`,
    after: `${freeBytesOf(pool) + bytes}`,
  })
  const words = (figure: string, label: string, before: string, after: string): Effect => ({
    ...{ figure, label, unit: 'words', before, after },
  })
  return [
    words('system', 'Stands on', system?.name ?? 'its system', toSystem?.name ?? 'another system'),
    words('pool', 'Comes from', from.name, to.name),
    { figure: 'movedBytes', label: 'What moves', unit: 'bytes', before: null, after: `${movedBytes}` },
    words(
      'writes',
      'A write waits, until it is switched, for',
      system?.name ?? 'its system',
      'both systems and the line',
    ),
    left(to, -movedBytes),
    words(
      'givenBack',
      `Given back in ${from.name}`,
      'nothing',
      `${formatBytes(movedBytes)} after ${countWords(days, 'day', 'days')}`,
    ),
  ]
}
