import { canBeAsked, one, type Estate } from '@/core/estate'
import { hideSnapshotIntent, showSnapshotIntent, type ShowSnapshotIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { answers, rule } from '../../parts/checks'
import { usable } from '../../parts/copies'
import { lookFrom, seesIt, seesItNot } from '../../parts/hostProof'
import { statedMapping } from '../../parts/statedMapping'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { groupChecks, initiatorsOf } from '../../parts/mapping'
import { outlined, type Outlined } from '../../parts/outline'
import { unmapped } from '../../parts/unmapped'
import { askedToProve } from '../../parts/signIn'

type Step = Readonly<{
  step: 'show' | 'hide'
  systemId: string
  volumeId: string
  snapshotLocator: string
  naa: string
  sizeBytes: string
  groupName: string
  initiators: readonly string[]
}>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent, way: Step['step']) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const snapshot = look.one('snapshots', intent.snapshotId)
  const system = look.one('systems', snapshot?.systemId)
  const group = look.one('hostGroups', intent.hostGroupId)
  const isShown = estate.mappings.some(each => each.snapshotId === snapshot?.id && each.hostGroupId === group?.id)
  return {
    group,
    initiators: initiatorsOf(estate, group),
    isShow: way === 'show',
    isShown,
    look,
    snapshot,
    system,
    volume,
  }
}
type Seen = ReturnType<typeof see>

/** Both are planned alike: what the one does, the other takes back. */
function plan(estate: Estate, intent: Intent, way: Step['step']): Plan<Step> {
  const seen = see(estate, intent, way)
  const { group, isShow, isShown, look, snapshot } = seen
  return outlined<Step>(estate, {
    title: `${isShow ? 'Show' : 'Take'} ${snapshot?.name ?? 'a snapshot'} ${isShow ? 'to' : 'from'} ${group?.name ?? 'a host group'}`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'seen',
        label: 'Seen by the group, to be read',
        unit: 'words',
        before: isShown ? 'yes' : 'no',
        after: isShow ? 'yes' : 'no',
      },
    ],
    undo: { possible: true, how: isShow ? 'It can be taken from them again.' : 'It can be shown to them again.' },
    steps: stepsOf(seen, way),
    reads: look.reads,
    claims: snapshot === undefined ? [] : [snapshot.id],
    proof: isShow
      ? 'Hosts of the group rescan and find it by its WWN, and a write to it is refused.'
      : 'Hosts of the group rescan and no longer find it.',
  })
}

const checksOf = ({ group, initiators, isShow, isShown, snapshot, system, volume }: Seen): readonly PlanCheck[] => [
  usable(snapshot, volume),
  ...(system === undefined ? [] : [answers(system)]),
  ...groupChecks(group, initiators),
  rule(
    'shown',
    isShown !== isShow,
    isShow ? 'The group does not see it yet.' : 'The group sees it.',
    isShow ? 'The group sees it already.' : 'The group does not see it.',
    { field: 'hostGroupId' },
  ),
]

function stepsOf({ group, initiators, snapshot, volume }: Seen, way: Step['step']): Outlined<Step>[] {
  if (snapshot === undefined || group === undefined || volume === undefined) return []
  return [
    {
      words: way === 'show' ? `Show it to ${group.name}, to be read` : `Take it from ${group.name}`,
      seconds: 0.4,
      step: {
        step: way,
        systemId: snapshot.systemId,
        volumeId: volume.id,
        snapshotLocator: snapshot.locator,
        naa: snapshot.naa,
        sizeBytes: `${snapshot.sizeBytes}`,
        groupName: group.name,
        initiators,
      },
    },
  ]
}

async function carry(step: Step, way: Step['step'], key: string, ports: ChangePorts): Promise<void> {
  const mappings = await ports.of(step.systemId, 'mappings')
  if (way === 'show') {
    await askedToProve(ports, step.systemId, step.initiators)
    await mappings.make(step.snapshotLocator, step.groupName, step.initiators, key, true)
    return
  }
  const mapping = (await mappings.of(step.snapshotLocator)).find(each => each.groupName === step.groupName)
  if (mapping !== undefined) await unmapped(step.snapshotLocator, mapping, step.systemId, ports)
}

/** What the system says of the mapping, where no host of the group has an agent that could be asked. */
async function statedWord(
  { step, systemId, snapshotLocator, groupName, initiators }: Omit<Step, 'naa' | 'sizeBytes' | 'volumeId'>,
  ports: ChangePorts,
): Promise<Evidence> {
  const stated = await statedMapping(ports, systemId, snapshotLocator, { name: groupName, initiators })
  if (step === 'show') return stated
  const mapped = await (await ports.of(systemId, 'mappings')).of(snapshotLocator)
  return {
    claim: `The system states that ${groupName} sees it no longer; no host of it has an agent that could be asked`,
    holds: mapped.every(each => each.groupName !== groupName),
    measured: { mappedTo: mapped.map(each => each.groupName).join(', ') || 'nobody' },
  }
}

async function prove(
  intent: Intent,
  { step, systemId, naa, sizeBytes, snapshotLocator, groupName, initiators }: Step,
  ports: ChangePorts,
): Promise<Evidence[]> {
  const { hosts } = await ports.estate()
  const targets = await (await ports.of(systemId, 'mappings')).targets()
  const inGroup = hosts.filter(canBeAsked).filter(each => each.hostGroupId === intent.hostGroupId)
  if (inGroup.length === 0) return [await statedWord({ step, systemId, snapshotLocator, groupName, initiators }, ports)]
  const evidence: Evidence[] = []
  for (const host of inGroup) {
    const { agent, device } = await lookFrom(ports, host, targets, naa)
    if (step === 'hide') {
      evidence.push({ ...seesItNot(host, device, naa), claim: `${host.name} no longer sees it` })
      continue
    }
    evidence.push(seesIt(host, device, naa, BigInt(sizeBytes)))
    const refusal = await agent.write(naa, 0n, 4096, 'must be refused').then(
      () => undefined,
      (cause: unknown) => cause,
    )
    evidence.push({
      claim: `A write from ${host.name} is refused`,
      holds: refusal !== undefined && (refusal as { readonly code?: unknown }).code === 'host.refused',
      measured: { answer: refusal instanceof Error ? refusal.message.slice(0, 300) : 'it was written' },
    })
  }
  return evidence
}

const kindOf = (way: Step['step']): Omit<ChangeKind<Intent, Step>, 'kind' | 'title' | 'intentSchema'> => ({
  needs: ({ volumeId, snapshotId }) => [one('volumes', volumeId), one('snapshots', snapshotId)],
  plan: (estate, intent) => plan(estate, intent, way),
  async runStep(step, { key }, ports) {
    await carry(step, way, key, ports)
    return { systemId: step.systemId, volumeId: step.volumeId }
  },
  async undoStep(step, { key }, ports) {
    await carry(step, way === 'show' ? 'hide' : 'show', key, ports)
    return undefined
  },
  prove: (intent, made, _facts, ports) => prove(intent, firstStep(made), ports),
  collects: itsSystem,
  reverse: intent => ({ kind: way === 'show' ? 'hide-snapshot' : 'show-snapshot', intent }),
})

export const showSnapshot: ChangeKind<Intent, Step> = { ...showSnapshotIntent, ...kindOf('show') }
export const hideSnapshot: ChangeKind<Intent, Step> = { ...hideSnapshotIntent, ...kindOf('hide') }
