import { mapVolumeIntent, type MapVolumeIntent as Intent } from '@/core/intents'
import { byId, type Estate, one, those } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { beyond, beyondCheck, beyondEvidence } from '../../parts/beyond'
import { advise, answers, rule } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { noImage } from '../../parts/images'
import { inUse } from '../../parts/inUse'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { carriesNoFiles, unshared } from '../../parts/unshared'
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

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const group = look.one('hostGroups', intent.hostGroupId)
  const initiators = initiatorsOf(estate, group)
  const present = estate.mappings.filter(mapping => mapping.volumeId === volume?.id)
  const twice = present.some(mapping => mapping.hostGroupId === group?.id)
  const others = present.filter(mapping => mapping.hostGroupId !== group?.id)
  const kept = beyond(estate, system, group)
  const claims = volume === undefined ? [] : [volume.id]
  return { claims, estate, group, initiators, kept, look, others, present, system, twice, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<MapStep> {
  const seen = see(estate, intent)
  const { claims, group, look, volume } = seen

  return outlined<MapStep>(estate, {
    title: `Map ${volume?.name ?? 'a volume'} to ${group?.name ?? '…'}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: [],
    undo: { possible: true, how: 'The mapping can be removed again.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof: 'Every host of the group logs in and finds it by its WWN. Nothing is written: it may hold data.',
  })
}

function checksOf({ estate, group, initiators, kept, others, system, twice, volume }: Seen): readonly PlanCheck[] {
  return [
    inUse(volume, volume => `${volume.name} is in use.`),
    ...noImage([volume]),
    ...unshared(estate, volume),
    ...carriesNoFiles(estate, volume === undefined ? [] : [volume]),
    ...(system === undefined ? [] : [answers(system)]),
    ...groupChecks(group, initiators),
    ...writersCheck(estate, group, 'it'),
    rule('new', !twice, 'It is not mapped to that group yet.', `It is mapped to ${group?.name ?? 'it'} already.`, {
      field: 'hostGroupId',
    }),
    advise(
      'alone',
      others.length === 0,
      'No other group sees it.',
      `${others.map(mapping => mapping.groupName).join(', ')} will go on seeing it: hosts that do not share a cluster file system would destroy each other's data.`,
      { field: 'hostGroupId' },
    ),
    ...beyondCheck(system, group, kept),
  ]
}

function effectsOf({ present }: Seen): readonly Effect[] {
  return [
    {
      figure: 'mappings',
      label: 'Groups that see it',
      unit: 'count',
      before: present.length,
      after: present.length + 1,
    },
  ]
}

function stepsOf({ estate, group, system, volume }: Seen): Outlined<MapStep>[] {
  if (group === undefined || system === undefined || volume === undefined) return []
  return [mapStep(estate, system, volume, group, `Map it to ${group.name}`)]
}

export const mapVolume: ChangeKind<Intent, MapStep> = {
  ...mapVolumeIntent,
  needs: ({ volumeId }) => [
    one('volumes', volumeId),
    those('shares', 'volumeId', volumeId),
    those('fileSystems', 'volumeId', volumeId),
  ],
  plan,
  runStep: (step, { key }, ports) => map(step, key, ports),
  undoStep: (step, _context, ports) => unmap(step, ports),
  async prove({ volumeId, hostGroupId }, made, _facts, ports) {
    const volume = byId((await ports.estate()).volumes, volumeId)
    const step = firstStep(made)
    const mappings = await ports.of(step.systemId, 'mappings')
    return [
      ...(await groupSees(ports, step, hostGroupId, volume?.sizeBytes ?? 0n)),
      ...(await beyondEvidence(mappings, step.groupName, step.kept)),
    ]
  },
  collects: itsSystem,
  reverse: intent => ({ kind: 'unmap-volume', intent }),
}
