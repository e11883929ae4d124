import { mapVolumeIntent, type MapVolumeIntent as Intent } from '@/core/intents'
import { byId, type Estate, one } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { beyond, beyondCheck, beyondEvidence } from '../../parts/beyond'
import { advise, answers, rule, there } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { lookFrom, seesIt } from '../../parts/hostProof'
import { inUse } from '../../parts/inUse'
import { lookInto } from '../../parts/look'
import { unmapped } from '../../parts/unmapped'
import { firstStep } from '../../parts/known'

type Step = Readonly<{
  step: 'map'
  systemId: string
  volumeLocator: string
  naa: string
  groupName: string
  initiators: readonly string[]
  /** What is in the group on the system besides, of which we know nothing: it stays there. */
  kept: readonly string[]
}>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const group = look.one('hostGroups', intent.hostGroupId)
  const initiators = estate.hosts.filter(host => host.hostGroupId === group?.id).flatMap(host => host.initiators)
  const present = estate.mappings.filter(mapping => mapping.volumeId === volume?.id)
  const twice = present.some(mapping => mapping.hostGroupId === group?.id)
  const others = present.filter(mapping => mapping.hostGroupId !== group?.id)
  const kept = beyond(estate, system, group)
  const claims = volume === undefined ? [] : [volume.id]
  return { claims, group, initiators, kept, look, others, present, system, twice, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { claims, group, look, volume } = seen

  return outlined<Step>(estate, {
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

function checksOf({ group, initiators, kept, others, system, twice, volume }: Seen): readonly PlanCheck[] {
  return [
    inUse(volume, volume => `${volume.name} is in use.`),
    ...(system === undefined ? [] : [answers(system)]),
    there('host-group', group, group => `${group.name} is there.`, 'Choose the host group that shall see it.', {
      field: 'hostGroupId',
    }),
    rule(
      'initiators',
      initiators.length > 0,
      `It has ${initiators.length} initiator${initiators.length === 1 ? '' : 's'}.`,
      'The group has no host with an initiator: nothing could log in.',
      { field: 'hostGroupId' },
    ),
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

function stepsOf({ group, initiators, kept, system, volume }: Seen): Outlined<Step>[] {
  if (group === undefined || system === undefined || volume === undefined) return []
  return [
    {
      words: `Map it to ${group.name ?? '…'}`,
      seconds: 0.6,
      step: {
        step: 'map',
        systemId: system.id,
        volumeLocator: volume.locator,
        naa: volume.naa,
        groupName: group.name,
        initiators,
        kept,
      },
    },
  ]
}

export const mapVolume: ChangeKind<Intent, Step> = {
  ...mapVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan,
  async runStep(step, { key }, ports) {
    const mapping = await (
      await ports.of(step.systemId, 'mappings')
    ).make(step.volumeLocator, step.groupName, step.initiators, key)
    return { mappingLocator: mapping.locator, lun: `${mapping.lun}`, naa: step.naa, systemId: step.systemId }
  },
  async undoStep(step, _context, ports) {
    const mappings = await ports.of(step.systemId, 'mappings')
    const mapping = (await mappings.of(step.volumeLocator)).find(each => each.groupName === step.groupName)
    if (mapping !== undefined) await unmapped(step.volumeLocator, mapping, step.systemId, ports)
    return undefined
  },
  async prove(intent, made, _facts, ports) {
    const estate = await ports.estate()
    const volume = byId(estate.volumes, intent.volumeId)
    const step = firstStep(made)
    const mappings = await ports.of(step.systemId, 'mappings')
    const targets = await mappings.targets()
    const hosts = estate.hosts.filter(host => host.hostGroupId === intent.hostGroupId && host.initiators.length > 0)
    const seen = await Promise.all(
      hosts.map(async host =>
        seesIt(host, (await lookFrom(ports, host, targets, step.naa)).device, step.naa, volume?.sizeBytes ?? 0n),
      ),
    )
    return [...seen, ...(await beyondEvidence(mappings, step.groupName, step.kept))]
  },
  collects: (_intent, _estate, facts) => (facts['systemId'] === undefined ? [] : [facts['systemId']]),
  reverse: intent => ({ kind: 'unmap-volume', intent }),
}
