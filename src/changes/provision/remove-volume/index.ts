import { DateTime } from 'luxon'
import { removeVolumeIntent, type RemoveVolumeIntent as Intent } from '@/core/intents'
import { canBeAsked, type Estate, type Mapping, one, those } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import { advise, answers, rule } from '../../parts/checks'
import { heldBack, snapshotsGo } from '../../parts/heldBack'
import { lookFrom, seesItNot } from '../../parts/hostProof'
import { inUse } from '../../parts/inUse'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'
import { unshared } from '../../parts/unshared'
import { unmapped } from '../../parts/unmapped'
import { fact, itsSystem } from '../../parts/known'

interface Access {
  readonly locator: string
  readonly groupName: string
  readonly initiators: readonly string[]
}
type Step = Readonly<
  | { step: 'unmap'; systemId: string; volumeLocator: string; naa: string; access: readonly Access[] }
  | { step: 'hold'; systemId: string; volumeId: string; days: number }
>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const mappings = estate.mappings.filter(mapping => mapping.volumeId === volume?.id)
  // A class may keep what was removed longer, or for less time, than the estate does.
  const serviceClass = look.one('serviceClasses', volume?.classId)
  const days = serviceClass?.holdingDays ?? estate.settings.holdingDays
  const claims = volume === undefined ? [] : [volume.id]
  const access = mappings.map((mapping: Mapping) => ({
    locator: mapping.locator,
    groupName: mapping.groupName,
    initiators: estate.hosts.filter(host => host.hostGroupId === mapping.hostGroupId).flatMap(host => host.initiators),
  }))
  const isNamed = volume !== undefined && intent.confirmedName === volume.name
  return { access, claims, days, estate, intent, isNamed, look, mappings, system, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { claims, days, look, volume } = seen
  return outlined<Step>(estate, {
    title: `Remove ${volume?.name ?? 'a volume'}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: [`After ${days} days in holding it is deleted, and nothing brings it back.`],
    undo: { possible: true, how: `For ${days} days it can be brought back with its mappings and every byte.` },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof: 'Hosts that saw it rescan and no longer find it; the system still states it, with every byte.',
  })
}

function checksOf({ estate, isNamed, mappings, system, volume }: Seen): readonly PlanCheck[] {
  return [
    inUse(volume, volume => `${volume.name} holds ${formatBytes(volume.writtenBytes)}.`),
    ...(system === undefined ? [] : [answers(system)]),
    rule(
      'named',
      isNamed,
      'Its name has been given.',
      `Write its name, ${volume?.name ?? '…'}, to say that you mean this one.`,
      { field: 'confirmedName' },
    ),
    advise(
      'unmapped',
      mappings.length === 0,
      'No host sees it.',
      `${mappings.map(mapping => mapping.groupName).join(', ')} will lose it at once.`,
    ),
    ...unshared(estate, volume),
    ...heldBack(estate, volume),
    ...snapshotsGo(estate, volume),
  ]
}

function effectsOf({ days, volume }: Seen): readonly Effect[] {
  return [
    { figure: 'holding', label: 'Can be brought back for', unit: 'words', before: null, after: `${days} days` },
    {
      figure: 'freeBytes',
      label: 'Given back after that',
      unit: 'bytes',
      before: null,
      after: `${volume?.writtenBytes ?? 0n}`,
    },
  ]
}

function stepsOf({ access, days, intent, mappings, system, volume }: Seen): Outlined<Step>[] {
  if (system === undefined || volume === undefined) return []
  const systemId = system.id
  return [
    {
      words:
        mappings.length === 0
          ? 'It is mapped to nobody'
          : `Take it from ${mappings.map(mapping => mapping.groupName).join(', ')}`,
      seconds: 0.4,
      step: { step: 'unmap', systemId, volumeLocator: volume.locator, naa: volume.naa, access },
    },
    {
      words: `Keep it in holding for ${days} days`,
      seconds: 0.05,
      step: { step: 'hold', systemId, volumeId: intent.volumeId, days },
    },
  ]
}

export const removeVolume: ChangeKind<Intent, Step> = {
  ...removeVolumeIntent,
  needs: ({ volumeId }) => [
    one('volumes', volumeId),
    those('snapshots', 'volumeId', volumeId),
    those('shares', 'volumeId', volumeId),
  ],
  needsAlso: ({ snapshots }) => [those('volumes', 'cloneOfId', ...snapshots.map(({ id }) => id))],
  plan,
  async runStep(step, _context, ports): Promise<Facts> {
    if (step.step === 'hold') {
      const until = DateTime.fromJSDate(await ports.now())
        .plus({ days: step.days })
        .toJSDate()
      await ports.records.hold(step.volumeId, until)
      return { holdingUntil: until.toISOString() }
    }
    for (const access of step.access) await unmapped(step.volumeLocator, access, step.systemId, ports)
    return {
      naa: step.naa,
      volumeLocator: step.volumeLocator,
      systemId: step.systemId,
      access: JSON.stringify(step.access.map(({ groupName }) => groupName)),
    }
  },
  async undoStep(step, { key }, ports) {
    if (step.step === 'hold') {
      await ports.records.release(step.volumeId)
      return undefined
    }
    const mappings = await ports.of(step.systemId, 'mappings')
    for (const { groupName, initiators } of step.access)
      await mappings.make(step.volumeLocator, groupName, initiators, key)
    return undefined
  },
  async prove(_intent, plan, facts, ports) {
    const [naa, systemId, volumeLocator] = [fact(facts, 'naa'), fact(facts, 'systemId'), fact(facts, 'volumeLocator')]
    const unmap = plan.steps[0]?.step
    const lost = new Set(unmap?.step === 'unmap' ? unmap.access.flatMap(each => each.initiators) : [])
    const hosts = (await ports.estate()).hosts
      .filter(canBeAsked)
      .filter(host => host.initiators.some(initiator => lost.has(initiator)))
    const volumes = await ports.of(systemId, 'volumes')
    const mappings = await ports.of(systemId, 'mappings')
    const stated = await volumes.at(volumeLocator)
    const mapped = await mappings.of(volumeLocator)
    // Hosts that we do not know cannot be asked: the system's word is all there is for them.
    const unmappedEvidence: Evidence = {
      claim: 'The system maps it to nobody',
      holds: mapped.length === 0,
      measured: { mappedTo: mapped.map(each => each.groupName).join(', ') || 'nobody' },
    }
    const kept: Evidence = {
      claim: 'The system still has the volume',
      holds: stated?.naa === naa,
      measured: { wwn: naa, stated: stated?.naa ?? 'nothing' },
    }
    const unseen = await Promise.all(
      hosts.map(async host => ({
        ...seesItNot(host, (await lookFrom(ports, host, [], naa)).device, naa),
        claim: `${host.name} no longer sees it`,
      })),
    )
    return [kept, unmappedEvidence, ...unseen]
  },
  collects: itsSystem,
  reverse: (intent, facts) => ({
    kind: 'bring-back-volume',
    intent: {
      volumeId: intent.volumeId,
      groupNames: facts['access'] === undefined ? [] : (JSON.parse(facts['access']) as string[]),
    },
  }),
}
