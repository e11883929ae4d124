import { canBeAsked, one, those, type Estate } from '@/core/estate'
import { restoreVolumeIntent, type RestoreVolumeIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import { begunOnce } from '../../parts/begunOnce'
import { advise, answers, rule } from '../../parts/checks'
import { countedName, sameBytes, take, takeStep, untake, usable, whileShown, type TakeStep } from '../../parts/copies'
import { inUse } from '../../parts/inUse'
import { itsSystem } from '../../parts/known'
import { initiatorsOf } from '../../parts/mapping'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'
import { waitForTask } from '../../parts/waitForTask'

type Step =
  | TakeStep
  | Readonly<{
      step: 'restore'
      systemId: string
      volumeId: string
      volumeLocator: string
      naa: string
      sizeBytes: string
      snapshotLocator: string
      snapshotNaa: string
      groups: readonly { readonly name: string; readonly initiators: readonly string[] }[]
    }>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const pool = look.one('pools', volume?.poolId)
  const snapshot = look.one('snapshots', intent.snapshotId)
  const seeing = estate.hostGroups.filter(group =>
    estate.mappings.some(each => each.volumeId === volume?.id && each.hostGroupId === group.id),
  )
  return { estate, intent, look, pool, seeing, snapshot, system, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, snapshot, volume } = seen
  return outlined<Step>(estate, {
    title: `Take ${volume?.name ?? 'a volume'} back to ${snapshot?.name ?? 'a snapshot'}`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'moment',
        label: 'What it is afterwards',
        unit: 'words',
        before: 'what it is now',
        after:
          snapshot?.takenAt == null ? null : `what it was at ${snapshot.takenAt.slice(0, 19).replace('T', ' ')} UTC`,
      },
      {
        figure: 'kept',
        label: 'What it is now',
        unit: 'words',
        before: 'only in the volume',
        after: 'in a snapshot of its own',
      },
    ],
    oneWay: ['What has been written since is no longer in the volume; it is in the snapshot that is taken first.'],
    undo: { possible: true, how: 'It can be taken back to the snapshot that is taken first.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: volume === undefined ? [] : [volume.id],
    proof:
      'A host that sees the volume is shown the snapshot too, reads both at sixteen places and compares them; then it is taken away again.',
  })
}

function checksOf({ intent, seeing, snapshot, system, volume }: Seen): readonly PlanCheck[] {
  return [
    inUse(volume, volume => `${volume.name} is in use.`),
    ...(system === undefined ? [] : [answers(system)]),
    usable(snapshot, volume),
    rule(
      'same-size',
      snapshot === undefined || volume === undefined || snapshot.sizeBytes >= volume.sizeBytes,
      'The volume has the size that it had then.',
      'The volume has been enlarged since, and is never made smaller.',
      { field: 'snapshotId', remedy: 'Clone the snapshot, and use the clone.' },
    ),
    rule(
      'named',
      volume !== undefined && intent.confirmedName === volume.name,
      'Its name has been given.',
      `Write its name, ${volume?.name ?? '…'}, to say that you mean this one.`,
      { field: 'confirmedName' },
    ),
    advise(
      'unmounted',
      seeing.length === 0,
      'No host sees it.',
      `${seeing.map(({ name }) => name).join(', ')} must have unmounted it: a mounted file system would go on writing what it remembers, and destroy what comes back.`,
      { remedy: 'Unmount it there first, and mount it again afterwards.' },
    ),
  ]
}

function stepsOf({ estate, pool, seeing, snapshot, volume }: Seen): Outlined<Step>[] {
  if (volume === undefined || pool === undefined || snapshot === undefined) return []
  const name = countedName(estate, volume, 'before-restore')
  return [
    takeStep(volume, pool, name, `before it was taken back to ${snapshot.name}`, `Take ${name}, what it is now`),
    {
      words: `Make it what ${snapshot.name} holds`,
      seconds: 2,
      step: {
        step: 'restore',
        systemId: volume.systemId,
        volumeId: volume.id,
        volumeLocator: volume.locator,
        naa: volume.naa,
        sizeBytes: `${volume.sizeBytes}`,
        snapshotLocator: snapshot.locator,
        snapshotNaa: snapshot.naa,
        groups: seeing.map(group => ({ name: group.name, initiators: initiatorsOf(estate, group) })),
      },
    },
  ]
}

async function prove(plan: Plan<Step>, ports: ChangePorts): Promise<Evidence[]> {
  const step = plan.steps.map(each => each.step).find(each => each.step === 'restore')
  if (step?.step !== 'restore') return []
  const stated = await (await ports.of(step.systemId, 'volumes')).at(step.volumeLocator)
  const evidence: Evidence[] = [
    {
      claim: 'The volume is there under its own WWN, with its size',
      holds: stated?.naa === step.naa && `${stated.sizeBytes}` === step.sizeBytes,
      measured: { wwn: stated?.naa ?? 'nothing', bytes: `${stated?.sizeBytes ?? 'nothing'}` },
    },
  ]
  const { hosts } = await ports.estate()
  for (const group of step.groups) {
    const host = hosts
      .filter(canBeAsked)
      .find(each => each.initiators.some(initiator => group.initiators.includes(initiator)))
    if (host === undefined) continue
    const shown = { systemId: step.systemId, snapshotLocator: step.snapshotLocator, groupName: group.name }
    const pair = [step.naa, step.snapshotNaa] as const
    const compared = await whileShown(ports, shown, group.initiators, `proof/${step.naa}`, targets =>
      sameBytes(ports, host, targets, pair, BigInt(step.sizeBytes), 'the volume and the snapshot'),
    )
    return [...evidence, compared]
  }
  return evidence
}

async function restore(step: Extract<Step, { step: 'restore' }>, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const { systemId, volumeLocator, naa, snapshotLocator } = step
  const snapshots = await ports.of(systemId, 'snapshots')
  const task = await begunOnce(
    'restoredAfter',
    facts,
    ports,
    () => snapshots.workOn(volumeLocator),
    () => snapshots.restore(volumeLocator, naa, snapshotLocator),
  )
  // A task that is no longer known has been cleared away after its end: the bytes themselves are compared by the proof.
  await waitForTask({ systemId, task, words: 'Taking it back', isDone: () => Promise.resolve(true) }, ports)
  return { systemId, volumeId: step.volumeId }
}

export const restoreVolume: ChangeKind<Intent, Step> = {
  ...restoreVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId), those('snapshots', 'volumeId', volumeId)],
  plan,
  runStep: (step, { facts }, ports) => (step.step === 'take' ? take(step, ports) : restore(step, facts, ports)),
  async undoStep(step, { facts }, ports) {
    if (step.step === 'restore') {
      const taken = facts['snapshotLocator']
      if (taken === undefined || facts['restoredAfter'] === undefined) return undefined
      const snapshots = await ports.of(step.systemId, 'snapshots')
      await snapshots.restore(step.volumeLocator, step.naa, taken)
      return undefined
    }
    // Once the volume has been taken back, this snapshot is the only place where what it was is kept.
    if (facts['restoredAfter'] !== undefined) return 'The snapshot that was taken first stays.'
    return untake(step, ports)
  },
  prove: (_intent, plan, _facts, ports) => prove(plan, ports),
  collects: itsSystem,
  reverse: ({ volumeId }, facts) =>
    facts['snapshotId'] === undefined
      ? undefined
      : { kind: 'restore-volume', intent: { volumeId, snapshotId: facts['snapshotId'], confirmedName: '' } },
}
