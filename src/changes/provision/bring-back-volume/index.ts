import { bringBackVolumeIntent, type BringBackVolumeIntent as Intent } from '@/core/intents'
import { byId, canBeAsked, type Estate, one } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, must, rule } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { lookFrom, seesIt } from '../../parts/hostProof'
import { lookInto } from '../../parts/look'
import { fact, itsSystem } from '../../parts/known'
import { askedToProve } from '../../parts/signIn'

interface Group {
  readonly groupName: string
  readonly initiators: readonly string[]
}
type Step = Readonly<{
  step: 'bring-back'
  systemId: string
  volumeId: string
  volumeLocator: string
  naa: string
  groups: readonly Group[]
}>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const groups = intent.groupNames.map(groupName => {
    const group = estate.hostGroups.find(each => each.name === groupName)
    return {
      groupName,
      initiators: estate.hosts.filter(host => host.hostGroupId === group?.id).flatMap(host => host.initiators),
    }
  })
  const unknown = groups.filter(group => group.initiators.length === 0)
  const claims = volume === undefined ? [] : [volume.id]
  return { claims, groups, intent, look, system, unknown, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { claims, groups, look, volume } = seen

  return outlined<Step>(estate, {
    title: `Bring back ${volume?.name ?? 'a volume'}`,
    checks: checksOf(seen),
    effects: [
      { figure: 'mappings', label: 'Groups that see it again', unit: 'count', before: 0, after: groups.length },
    ],
    oneWay: [],
    undo: { possible: true, how: 'It can be removed again.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof: 'Hosts that saw it rescan and find it with its size.',
  })
}

function checksOf({ system, unknown, volume }: Seen): readonly PlanCheck[] {
  return [
    must(
      'in-holding',
      volume?.state === 'holding',
      volume === undefined
        ? 'It is gone: its time in holding is over.'
        : volume.state === 'holding'
          ? `${volume.name} is in holding.`
          : `${volume.name} is not in holding.`,
    ),
    ...(system === undefined ? [] : [answers(system)]),
    rule(
      'groups',
      unknown.length === 0,
      'All groups that saw it are there.',
      `No initiator is known of ${unknown.map(group => group.groupName).join(', ')}.`,
      { field: 'groupNames', remedy: 'Bring it back without them and map it afterwards.' },
    ),
  ]
}

function stepsOf({ groups, intent, system, volume }: Seen): Outlined<Step>[] {
  if (system === undefined || volume === undefined) return []
  return [
    {
      words:
        groups.length === 0
          ? 'Take it out of holding'
          : `Take it out of holding and map it to ${intent.groupNames.join(', ')}`,
      seconds: 0.6,
      step: {
        step: 'bring-back',
        systemId: system.id,
        volumeId: intent.volumeId,
        volumeLocator: volume.locator,
        naa: volume.naa,
        groups,
      },
    },
  ]
}

export const bringBackVolume: ChangeKind<Intent, Step> = {
  ...bringBackVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan,
  async runStep(step, { key }, ports) {
    const mappings = await ports.of(step.systemId, 'mappings')
    for (const { groupName, initiators } of step.groups) {
      await askedToProve(ports, step.systemId, initiators)
      await mappings.make(step.volumeLocator, groupName, initiators, key)
    }
    await ports.records.release(step.volumeId)
    return { systemId: step.systemId, naa: step.naa, volumeId: step.volumeId }
  },
  undoStep: async () => 'The volume is out of holding.',
  async prove(intent, _plan, facts, ports) {
    const estate = await ports.estate()
    const volume = byId(estate.volumes, intent.volumeId)
    const wanted = new Set(
      estate.hostGroups.filter(group => intent.groupNames.includes(group.name)).map(group => group.id),
    )
    const hosts = estate.hosts.filter(canBeAsked).filter(host => wanted.has(host.hostGroupId))
    const [naa, systemId] = [fact(facts, 'naa'), fact(facts, 'systemId')]
    const mappings = await ports.of(systemId, 'mappings')
    const volumes = await ports.of(systemId, 'volumes')
    const targets = await mappings.targets()
    const stated = volume === undefined ? undefined : await volumes.at(volume.locator)
    return [
      {
        claim: 'The system states the volume with its size, and it is out of holding',
        holds:
          stated !== undefined &&
          stated.naa === naa &&
          stated.sizeBytes === volume?.sizeBytes &&
          volume.state === 'in use',
        measured: { statedBytes: `${stated?.sizeBytes ?? 'nothing'}` },
      },
      ...(await Promise.all(
        hosts.map(async host =>
          seesIt(host, (await lookFrom(ports, host, targets, naa)).device, naa, volume?.sizeBytes ?? 0n),
        ),
      )),
    ]
  },
  collects: itsSystem,
  reverse: ({ volumeId }) => ({
    kind: 'remove-volume',
    intent: { volumeId, confirmedName: '' },
  }),
}
