import { mapVolumesIntent, type MapVolumesIntent as Intent } from '@/core/intents'
import { byId, type Estate, one, those, type Volume } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { beyond, beyondCheck, beyondEvidence } from '../../parts/beyond'
import { advise, answers, rule } from '../../parts/checks'
import { allInUse, namedFew } from '../../parts/inUse'
import { lookInto } from '../../parts/look'
import {
  groupChecks,
  groupSees,
  initiatorsOf,
  map,
  mapStep,
  unmap,
  type MapStep,
  writersCheck,
} from '../../parts/mapping'
import { carriesNoFiles } from '../../parts/unshared'
import { outlined, type Outlined } from '../../parts/outline'

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volumes = look.some('volumes', intent.volumeIds)
  const systems = look.some(
    'systems',
    volumes.map(volume => volume.systemId),
  )
  const group = look.one('hostGroups', intent.hostGroupId)
  const isSeenBy = (volume: Volume, isGroup: boolean) =>
    estate.mappings.some(each => each.volumeId === volume.id && (each.hostGroupId === group?.id) === isGroup)
  return {
    estate,
    group,
    intent,
    look,
    systems,
    volumes,
    mapped: volumes.filter(volume => isSeenBy(volume, true)),
    shared: volumes.filter(volume => isSeenBy(volume, false)),
  }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<MapStep> {
  const seen = see(estate, intent)
  const { group, look, mapped, volumes } = seen
  return outlined<MapStep>(estate, {
    title: `Map ${countWords(volumes.length, 'volume', 'volumes')} to ${group?.name ?? '…'}`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'mappings',
        label: `Of these volumes seen by ${group?.name ?? 'the group'}`,
        unit: 'count',
        before: mapped.length,
        after: volumes.length,
      },
    ],
    undo: { possible: true, how: 'Each mapping can be removed again.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: volumes.map(volume => volume.id),
    proof: 'Every host of the group logs in and finds each by its WWN. Nothing is written: they may hold data.',
  })
}

function checksOf({ estate, group, intent, mapped, shared, systems, volumes }: Seen): readonly PlanCheck[] {
  return [
    allInUse(volumes, intent.volumeIds.length),
    ...carriesNoFiles(estate, volumes),
    ...systems.map(answers),
    ...groupChecks(group, initiatorsOf(estate, group)),
    ...writersCheck(estate, group, 'them'),
    rule('new', mapped.length === 0, 'None is mapped to that group yet.', `It sees ${namedFew(mapped)} already.`, {
      field: 'hostGroupId',
    }),
    advise(
      'alone',
      shared.length === 0,
      'No other group sees them.',
      `Others go on seeing ${namedFew(shared)}: hosts that do not share a cluster file system would destroy each other's data.`,
      { field: 'hostGroupId' },
    ),
    ...systems.flatMap(system => beyondCheck(system, group, beyond(estate, system, group))),
  ]
}

function stepsOf({ estate, group, systems, volumes }: Seen): Outlined<MapStep>[] {
  if (group === undefined) return []
  return volumes.flatMap(volume => {
    const system = byId(systems, volume.systemId)
    return system === undefined ? [] : [mapStep(estate, system, volume, group, `Map ${volume.name} to ${group.name}`)]
  })
}

/** Several volumes for one host group in one change: all of them, or none. */
export const mapVolumes: ChangeKind<Intent, MapStep> = {
  ...mapVolumesIntent,
  needs: ({ volumeIds }) => [
    ...volumeIds.map(id => one('volumes', id)),
    those('fileSystems', 'volumeId', ...volumeIds),
  ],
  plan,
  runStep: (step, { key }, ports) => map(step, key, ports),
  undoStep: (step, _context, ports) => unmap(step, ports),
  async prove({ hostGroupId }, made, _facts, ports) {
    const { volumes } = await ports.estate()
    const evidence = []
    for (const { step } of made.steps) {
      const volume = volumes.find(each => each.naa === step.naa)
      const seen = await groupSees(ports, step, hostGroupId, volume?.sizeBytes ?? 0n)
      evidence.push(...seen.map(each => ({ ...each, claim: `${volume?.name ?? step.naa}: ${each.claim}` })))
    }
    for (const step of new Map(made.steps.map(({ step }) => [step.systemId, step])).values())
      evidence.push(...(await beyondEvidence(await ports.of(step.systemId, 'mappings'), step.groupName, step.kept)))
    return evidence
  },
  collects: ({ volumeIds }, { volumes }) => [...new Set(volumeIds.flatMap(id => byId(volumes, id)?.systemId ?? []))],
  reverse: () => undefined,
}
