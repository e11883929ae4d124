import type { AskedHost, Pool, System, Volume } from '@/core/estate'
import type { ChangePorts } from '@/ports'
import { DateTime } from 'luxon'
import type { Facts, StepContext } from '../../ChangeKind'
import { sumsOf, take, takeStep, whileShown, type TakeStep } from '../../parts/copies'
import { lookFrom } from '../../parts/hostProof'
import { fact, found, NotKnown } from '../../parts/known'
import { map } from '../../parts/mapping'
import { endsOf, mirror, MirrorFailed, mirrorStep, type Ends, type MirrorStep } from '../../parts/mirrors'
import type { Outlined } from '../../parts/outline'
import { unmapped } from '../../parts/unmapped'
import { waitForTask } from '../../parts/waitForTask'
import { CopiesDiffer, WayMissing } from './errors'

/** A group that is shown the volume now, where its own system states it. */
export interface Shown {
  readonly locator: string
  readonly groupName: string
  readonly initiators: readonly string[]
}

export interface Moved {
  readonly volume: Volume
  readonly from: Pool
  readonly to: Pool
  readonly system: System
  readonly toSystem: System
  readonly shown: readonly Shown[]
  readonly hosts: readonly AskedHost[]
  readonly movedBytes: bigint
  readonly ratePercent: number
  readonly days: number
  readonly snapshotName: string
  /** What it is called on its old system afterwards. */
  readonly formerName: string
}

type Asked = Pick<AskedHost, 'name' | 'agentAddress'>
export type ShowStep = Readonly<{ step: 'show'; shown: readonly Shown[] } & Ends>
export type CompareStep = Readonly<
  {
    step: 'compare'
    snapshotName: string
    sizeBytes: string
    host: Asked
    groupName: string
    initiators: readonly string[]
  } & Ends
>
export type SwitchStep = Readonly<{ step: 'switch'; hosts: readonly Asked[] } & Ends>
export type LeaveStep = Readonly<{ step: 'leave'; shown: readonly Shown[]; hosts: readonly Asked[] } & Ends>
export type PartStep = Readonly<{ step: 'part' } & Ends>
export type HoldStep = Readonly<{ step: 'hold'; name: string; days: number } & Ends>
export type Step = TakeStep | MirrorStep | ShowStep | CompareStep | SwitchStep | LeaveStep | PartStep | HoldStep

export function stepsOf(moved: Moved): Outlined<Step>[] {
  const { days, formerName, hosts, shown, toSystem, volume } = moved
  const ends = endsOf(volume, toSystem)
  const asked = hosts.map(({ agentAddress, name }) => ({ name, agentAddress }))
  const isSeen = shown.length > 0
  const groups = shown.map(({ groupName }) => groupName).join(', ')
  const step = (words: string, seconds: number, made: Step): Outlined<Step> => ({ words, seconds, step: made })
  return [
    mirrorStep(moved),
    ...(isSeen ? [step(`Show ${groups} the new ways`, 0.8 * shown.length, { step: 'show', ...ends, shown })] : []),
    ...compareSteps(moved, ends),
    step(`Let ${toSystem.name} take over`, 0.5 + hosts.length, { step: 'switch', ...ends, hosts: asked }),
    ...(isSeen
      ? [step(`Take the old ways from ${groups}`, 0.8 * shown.length, { step: 'leave', ...ends, shown, hosts: asked })]
      : []),
    step(`End the mirror: it stands on ${toSystem.name} alone`, 1, { step: 'part', ...ends }),
    step(`Keep what it was in holding for ${days} days, as ${formerName}`, 0.5, {
      ...{ step: 'hold', ...ends, name: formerName, days },
    }),
  ]
}

/** A snapshot of one instant on both systems, and a host that reads them: before anything is switched. */
function compareSteps(
  { from, hosts: [host], shown, snapshotName, toSystem, volume }: Moved,
  ends: Ends,
): Outlined<Step>[] {
  const group = shown.find(each => each.initiators.some(one => host?.initiators.includes(one)))
  if (host === undefined || group === undefined) return []
  return [
    takeStep(volume, from, snapshotName, `before ${toSystem.name} took over`, `Take ${snapshotName} on both systems`),
    {
      words: `${host.name} reads sixteen places of both`,
      seconds: 3,
      step: {
        ...{ step: 'compare', ...ends, snapshotName, sizeBytes: `${volume.sizeBytes}` },
        ...{ host: { name: host.name, agentAddress: host.agentAddress }, groupName: group.groupName },
        initiators: group.initiators,
      },
    },
  ]
}

export async function runStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  switch (step.step) {
    case 'mirror':
      return mirror(step, facts, ports)
    case 'show':
      for (const each of step.shown)
        await map({ ...step, ...each, step: 'map', ...farOf(step, facts), kept: [] }, `${key}/${each.groupName}`, ports)
      return {}
    case 'take':
      return take(step, ports)
    case 'compare':
      return compare(step, facts, ports)
    case 'switch':
      return switchOver(step, ports)
    case 'leave':
      for (const each of step.shown) await unmapped(step.volumeLocator, each, step.systemId, ports)
      for (const host of step.hosts) await lookFrom(ports, host, [], step.naa)
      return {}
    case 'part':
      return part(step, facts, ports)
    case 'hold':
      return hold(step, facts, ports)
  }
}

/** The other end as something that is shown to hosts. */
const farOf = ({ toSystemId }: Ends, facts: Facts) => ({
  systemId: toSystemId,
  volumeLocator: fact(facts, 'toLocator'),
})

/** What the host of a step reads of a snapshot at one of the ends. */
const sumsAt = (
  step: CompareStep,
  systemId: string,
  snapshot: { readonly locator: string; readonly naa: string },
  ports: ChangePorts,
) =>
  whileShown(
    ports,
    { systemId, snapshotLocator: snapshot.locator, groupName: step.groupName },
    step.initiators,
    `ends/${step.naa}`,
    targets => sumsOf(ports, step.host, targets, snapshot.naa, BigInt(step.sizeBytes)),
  )

/** The snapshot of a name that was taken of the other end. */
async function farSnapshot(step: CompareStep, facts: Facts, ports: ChangePorts) {
  const snapshots = await ports.of(step.toSystemId, 'snapshots')
  const made = await snapshots.named(fact(facts, 'toLocator'), step.snapshotName)
  if (made === undefined) return undefined
  const isDone = async () => (await snapshots.at(made.locator))?.isConsistent === true
  await waitForTask({ systemId: step.toSystemId, task: made.task, words: 'Reaching the drives', isDone }, ports)
  return snapshots.at(made.locator)
}

/** What the other end holds, as the host of the step reads it. */
export async function farSums(step: CompareStep, facts: Facts, ports: ChangePorts): Promise<readonly string[]> {
  const snapshot = await farSnapshot(step, facts, ports)
  return snapshot === undefined ? [] : sumsAt(step, step.toSystemId, snapshot, ports)
}

/** @throws {CopiesDiffer} where the ends do not hold the same: then nothing is switched */
async function compare(step: CompareStep, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const far = await farSnapshot(step, facts, ports)
  if (far === undefined || far.takenAt === null || far.takenAt !== facts['takenAt'])
    throw new MirrorFailed(
      'The other system has no snapshot of the same instant, by which both ends could be compared.',
    )
  const own = { locator: fact(facts, 'snapshotLocator'), naa: fact(facts, 'snapshotNaa') }
  const near = await sumsAt(step, step.systemId, own, ports)
  const there = await sumsAt(step, step.toSystemId, far, ports)
  const differ = near.filter((sum, index) => sum !== there[index]).length
  if (near.length === 0 || near.length !== there.length || differ > 0) throw new CopiesDiffer(step.host.name, differ)
  return { sums: near.join(' ') }
}

/** Every host must have a way to the other end that is up, before that end takes over. */
async function switchOver(step: SwitchStep, ports: ChangePorts): Promise<Facts> {
  const mirrors = await ports.of(step.systemId, 'mirrors')
  const seen = await mirrors.of(step.volumeLocator)
  if (seen?.role === 'target') return {}
  if (seen?.state !== 'alike') throw new MirrorFailed('Its ends do not hold the same any more.')
  const targets = await (await ports.of(step.toSystemId, 'mappings')).targets()
  for (const host of step.hosts) {
    const { device } = await lookFrom(ports, host, targets, step.naa)
    if (device?.paths?.some(each => each.isUp && targets.includes(each.target)) !== true)
      throw new WayMissing(host.name)
  }
  await mirrors.reverse(step.volumeLocator, step.naa)
  if ((await mirrors.of(step.volumeLocator))?.role !== 'target')
    throw new MirrorFailed('Its system does not say that the other one has taken over.')
  return {}
}

async function part(step: PartStep, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const { systemId, toSystemId, volumeId, volumeLocator, naa } = step
  const toLocator = fact(facts, 'toLocator')
  const mirrors = await ports.of(toSystemId, 'mirrors')
  if ((await mirrors.of(toLocator)) !== undefined) await mirrors.part(toLocator, naa)
  await ports.records.collect(toSystemId)
  if (!(await ports.records.movedTo(volumeId, toSystemId, toLocator))) throw new NotKnown('where it stands now')
  await ports.records.collect(toSystemId)
  await ports.records.collect(systemId)
  const former = await (await ports.of(systemId, 'volumes')).at(volumeLocator)
  // Under its old name nothing of what it was is touched: that would be the volume itself.
  return found({ formerNaa: former?.naa === naa ? undefined : former?.naa })
}

async function hold(step: HoldStep, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const { systemId, volumeLocator, days, name } = step
  await (await ports.of(systemId, 'volumes')).rename(volumeLocator, fact(facts, 'formerNaa'), name)
  await ports.records.collect(systemId)
  const formerId = await ports.records.idAt(systemId, volumeLocator)
  if (formerId === undefined) throw new NotKnown('what it was on its old system')
  const until = DateTime.fromJSDate(await ports.now())
    .plus({ days })
    .toJSDate()
  await ports.records.hold(formerId, until)
  return { formerId, holdingUntil: until.toISOString() }
}
