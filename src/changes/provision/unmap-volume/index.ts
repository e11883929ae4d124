import { unmapVolumeIntent, type UnmapVolumeIntent as Intent } from '@/core/intents'
import { canBeAsked, type Estate, one } from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, there, warn } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { lookFrom, seesItNot } from '../../parts/hostProof'
import { lookInto } from '../../parts/look'
import { unmapped } from '../../parts/unmapped'
import { firstStep, itsSystem } from '../../parts/known'

type Step = Readonly<{
  step: 'unmap'
  systemId: string
  volumeLocator: string
  naa: string
  mappingLocator: string
  groupName: string
  initiators: readonly string[]
}>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const group = look.one('hostGroups', intent.hostGroupId)
  const mapping = estate.mappings.find(each => each.volumeId === volume?.id && each.hostGroupId === group?.id)
  const hosts = estate.hosts.filter(host => host.hostGroupId === group?.id)
  const claims = volume === undefined ? [] : [volume.id]
  return { claims, group, hosts, look, mapping, system, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { claims, group, hosts, look, volume } = seen

  return outlined<Step>(estate, {
    title: `Unmap ${volume?.name ?? 'a volume'} from ${group?.name ?? '…'}`,
    checks: checksOf(seen),
    effects: [{ figure: 'hosts', label: 'Hosts that lose it', unit: 'count', before: hosts.length, after: 0 }],
    oneWay: [],
    undo: { possible: true, how: 'It can be mapped again; its data stays as it is.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof: 'Every host of the group rescans and no longer finds it.',
  })
}

function checksOf({ hosts, mapping, system }: Seen): readonly PlanCheck[] {
  return [
    there(
      'mapped',
      mapping,
      mapping => `${mapping.groupName} sees it as LUN ${mapping.lun}.`,
      'Choose a volume and a group that sees it.',
      { field: 'hostGroupId' },
    ),
    ...(system === undefined ? [] : [answers(system)]),
    warn(
      'unmounted',
      hosts.length === 0,
      `${hosts.map(host => host.name).join(', ') || 'No host'} will lose it at once. Unmount it there first: what is not yet written would be lost.`,
    ),
  ]
}

function stepsOf({ group, hosts, mapping, system, volume }: Seen): Outlined<Step>[] {
  if (group === undefined || mapping === undefined || system === undefined || volume === undefined) return []
  return [
    {
      words: `Take it from ${group.name ?? '…'}`,
      seconds: 0.4,
      step: {
        step: 'unmap',
        systemId: system.id,
        volumeLocator: volume.locator,
        naa: volume.naa,
        mappingLocator: mapping.locator,
        groupName: group.name,
        initiators: hosts.flatMap(host => host.initiators),
      },
    },
  ]
}

export const unmapVolume: ChangeKind<Intent, Step> = {
  ...unmapVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan,
  async runStep(step, _context, ports) {
    const mapping = { locator: step.mappingLocator, groupName: step.groupName }
    await unmapped(step.volumeLocator, mapping, step.systemId, ports)
    return { naa: step.naa, systemId: step.systemId }
  },
  async undoStep(step, { key }, ports) {
    await (await ports.of(step.systemId, 'mappings')).make(step.volumeLocator, step.groupName, step.initiators, key)
    return undefined
  },
  async prove(intent, made, _facts, ports) {
    const estate = await ports.estate()
    const hosts = estate.hosts.filter(canBeAsked).filter(host => host.hostGroupId === intent.hostGroupId)
    const step = firstStep(made)
    const mapped = await (await ports.of(step.systemId, 'mappings')).of(step.volumeLocator)
    const unmappedEvidence = {
      claim: `The system maps it to ${step.groupName} no longer`,
      holds: !mapped.some(each => each.groupName === step.groupName),
      measured: { mappedTo: mapped.map(each => each.groupName).join(', ') || 'nobody' },
    }
    const unseen = await Promise.all(
      hosts.map(async host => {
        const evidence = seesItNot(host, (await lookFrom(ports, host, [], step.naa)).device, step.naa)
        return { ...evidence, claim: `${host.name} no longer sees it` }
      }),
    )
    return [unmappedEvidence, ...unseen]
  },
  collects: itsSystem,
  reverse: intent => ({ kind: 'map-volume', intent }),
}
