import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { untake } from '../../parts/copies'
import { lookFrom } from '../../parts/hostProof'
import { fact } from '../../parts/known'
import { unmap } from '../../parts/mapping'
import { takeMirrorBack, type Ends } from '../../parts/mirrors'
import type { CompareStep, LeaveStep, ShowStep, Step, SwitchStep } from './steps'

/** Takes a step back as long as the mirror holds: from then on the volume is at its new system, and taking ways away would cut hosts off. */
export async function undoStep(
  step: Step,
  { key, facts }: StepContext,
  ports: ChangePorts,
): Promise<string | undefined> {
  if (step.step === 'take') return untake(step, ports)
  if (facts['formerNaa'] !== undefined || !(await standsHere(step, ports)))
    return 'It has arrived on its new system, and stays there until it is moved back.'
  switch (step.step) {
    case 'mirror':
      return takeMirrorBack(step, facts, ports)
    case 'show':
      return takeFrom(step, facts, ports)
    case 'compare':
      return dropFarSnapshot(step, facts, ports)
    case 'switch':
      return switchBack(step, facts, ports)
    case 'leave':
      return showAgain(step, key, ports)
    case 'part':
    case 'hold':
      return undefined
  }
}

/** Whether its old system still has it, under its own WWN. */
async function standsHere({ systemId, volumeLocator, naa }: Ends, ports: ChangePorts): Promise<boolean> {
  return (await (await ports.of(systemId, 'volumes')).at(volumeLocator))?.naa === naa
}

async function takeFrom(step: ShowStep, facts: Facts, ports: ChangePorts): Promise<undefined> {
  const { toLocator } = facts
  if (toLocator === undefined) return
  for (const { groupName, initiators } of step.shown)
    await unmap(
      {
        step: 'map',
        systemId: step.toSystemId,
        volumeLocator: toLocator,
        naa: step.naa,
        groupName,
        initiators,
        kept: [],
      },
      ports,
    )
}

async function dropFarSnapshot(step: CompareStep, facts: Facts, ports: ChangePorts): Promise<undefined> {
  const { toLocator } = facts
  const snapshots = await ports.of(step.toSystemId, 'snapshots')
  const made = toLocator === undefined ? undefined : await snapshots.named(toLocator, step.snapshotName)
  const seen = made === undefined ? undefined : await snapshots.at(made.locator)
  if (made === undefined || seen === undefined) return
  await snapshots.remove(made.locator, seen.naa)
  await ports.records.collect(step.toSystemId)
  await ports.records.gone(step.toSystemId, [made.locator])
}

async function switchBack(step: SwitchStep, facts: Facts, ports: ChangePorts): Promise<undefined> {
  const seen = await (await ports.of(step.systemId, 'mirrors')).of(step.volumeLocator)
  if (seen?.role === 'target')
    await (await ports.of(step.toSystemId, 'mirrors')).reverse(fact(facts, 'toLocator'), step.naa)
}

async function showAgain(step: LeaveStep, key: string, ports: ChangePorts): Promise<undefined> {
  const mappings = await ports.of(step.systemId, 'mappings')
  for (const { groupName, initiators } of step.shown)
    await mappings.make(step.volumeLocator, groupName, initiators, `${key}/${groupName}`)
  const targets = await mappings.targets()
  for (const host of step.hosts) await lookFrom(ports, host, targets, step.naa)
  await ports.records.collect(step.systemId)
}
