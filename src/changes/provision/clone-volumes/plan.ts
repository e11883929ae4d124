import type { CloneVolumesIntent as Intent } from '@/core/intents'
import { nameCheck, namesIn, type Estate } from '@/core/estate'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import { beyond, beyondCheck } from '../../parts/beyond'
import { answers, must, rule } from '../../parts/checks'
import { countedName, takeStep, usable } from '../../parts/copies'
import { overcommitOf } from '../../parts/fill'
import { inUse } from '../../parts/inUse'
import { applicationOf } from '../../parts/keptFor'
import { lookInto } from '../../parts/look'
import { initiatorsOf, mappedCheck, writersCheck } from '../../parts/mapping'
import { outlined, type Outlined } from '../../parts/outline'
import type { Step } from './steps'

/** One draft makes so many at most. */
const mostClones = 500
/** Clones that one step makes: it gives its place back between such steps, and can be stopped there. */
const inOneStep = 20
const requestSeconds = 0.25
const shownTaken = 5

/** The names that are asked for; why there are none. */
export function namesAsked({ names }: Pick<Intent, 'names'>): readonly string[] | string {
  const given = names.trim()
  return given === '' ? 'Give the names, with a range that stands for many: desk-{01..60}.' : namesIn(given)
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const pool = look.one('pools', volume?.poolId)
  const snapshot = intent.snapshotId === '' ? undefined : look.one('snapshots', intent.snapshotId)
  const group = look.one('hostGroups', intent.hostGroupId)
  const read = namesAsked(intent)
  const names = typeof read === 'string' ? [] : read
  const sizeBytes = snapshot?.sizeBytes ?? volume?.sizeBytes ?? 0n
  return { estate, group, intent, look, names, pool, read, sizeBytes, snapshot, system, volume }
}
type Seen = ReturnType<typeof see>

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, names, snapshot, volume } = seen
  return outlined<Step>(estate, {
    title: `Make ${countWords(names.length, 'clone', 'clones')} of ${snapshot?.name ?? volume?.name ?? 'a volume'}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: ['Their snapshot cannot go while any of them shares with it; splitting one ends that for it.'],
    undo: {
      possible: true,
      how: `Each can be removed; for ${estate.settings.holdingDays} days it can then be brought back.`,
    },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: volume === undefined ? [] : [volume.id, ...names.map(name => `volume:${volume.systemId}/${name}`)],
    proof:
      'Every clone is read again from its system, with its name, its size and the snapshot that it shares with; what all of them take by themselves is measured.',
  })
}

function checksOf(seen: Seen): readonly PlanCheck[] {
  const { estate, group, intent, names, pool, read, snapshot, system, volume } = seen
  const bad = names.map(name => nameCheck(name, 'a clone')).find(({ holds }) => !holds)
  const known = new Set([...estate.volumes, ...estate.snapshots].map(({ name }) => name))
  const taken = names.filter(name => known.has(name))
  const initiators = initiatorsOf(estate, group)
  return [
    inUse(volume, each => `${each.name} is in use.`),
    ...(system === undefined ? [] : [answers(system)]),
    typeof read === 'string'
      ? must('names', false, read, { field: 'names' })
      : rule(
          'names',
          bad === undefined && names.length <= mostClones,
          `${names[0] ?? ''}${names.length > 1 ? ` to ${names.at(-1) ?? ''}` : ''}.`,
          bad?.why ?? `${names.length.toLocaleString('en')} are asked for; ${mostClones} is the most.`,
          { field: 'names' },
        ),
    rule(
      'names-free',
      taken.length === 0,
      'All names are free.',
      `${taken.slice(0, shownTaken).join(', ')}${taken.length > shownTaken ? ` and ${taken.length - shownTaken} more` : ''} ${taken.length === 1 ? 'exists' : 'exist'} already, in use or in holding.`,
      { field: 'names' },
    ),
    ...(intent.snapshotId === '' ? [] : [usable(snapshot, volume)]),
    rule(
      'pool',
      pool !== undefined && (pool.state === 'fine' || pool.state === 'degraded'),
      `${pool?.name ?? 'The pool'} is ready.`,
      'The pool of the source is not ready.',
    ),
    mappedCheck(group, initiators, 'No host group: nobody will see them until they are mapped.'),
    ...writersCheck(estate, group, 'each of them'),
    ...beyondCheck(system, group, beyond(estate, system, group)),
  ]
}

function effectsOf({ names, pool, sizeBytes }: Seen): readonly Effect[] {
  const provisioned = sizeBytes * BigInt(names.length)
  return [
    { figure: 'clones', label: 'Clones', unit: 'count', before: null, after: names.length },
    { figure: 'ownBytes', label: 'What they take at first', unit: 'bytes', before: null, after: '0' },
    {
      figure: 'mostBytes',
      label: 'Once all of each is written otherwise',
      unit: 'bytes',
      before: null,
      after: `${provisioned}`,
    },
    ...(pool === undefined
      ? []
      : [
          {
            figure: 'overcommit',
            label: `Provisioned ÷ capacity of ${pool.name}`,
            unit: 'ratio' as const,
            before: overcommitOf(pool, pool.provisionedBytes),
            after: overcommitOf(pool, pool.provisionedBytes + provisioned),
          },
        ]),
  ]
}

function stepsOf(seen: Seen): Outlined<Step>[] {
  const { estate, group, intent, names, pool, snapshot, system, volume } = seen
  if (volume === undefined || pool === undefined || system === undefined || names.length === 0) return []
  const name = snapshot?.name ?? countedName(estate, volume, 'for-clones')
  const source = snapshot === undefined ? null : { locator: snapshot.locator, naa: snapshot.naa }
  const steps: Outlined<Step>[] =
    snapshot === undefined
      ? [takeStep(volume, pool, name, `clones ${intent.names}`, `Take ${name}, what it is now`)]
      : []
  const application = applicationOf(intent.application)
  for (let from = 0; from < names.length; from += inOneStep) {
    const some = names.slice(from, from + inOneStep)
    const words = `${some[0] ?? ''}${some.length > 1 ? ` to ${some.at(-1) ?? ''}` : ''}`
    const batch = `${from / inOneStep}`
    steps.push({
      words: `Clone ${words}`,
      seconds: requestSeconds * some.length,
      step: {
        step: 'clone',
        batch,
        systemId: system.id,
        snapshot: source,
        names: some,
        poolLocator: pool.locator,
        application,
      },
    })
    if (group !== undefined)
      steps.push({
        words: `Map ${words} to ${group.name}`,
        seconds: requestSeconds * some.length,
        step: {
          step: 'map',
          batch,
          systemId: system.id,
          groupName: group.name,
          initiators: initiatorsOf(estate, group),
        },
      })
  }
  return steps
}
