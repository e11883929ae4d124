import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { begunOnce } from '../../parts/begunOnce'
import { sumsOf, take, untake, whileShown, type TakeStep } from '../../parts/copies'
import { fact } from '../../parts/known'
import { waitForTask } from '../../parts/waitForTask'

interface About {
  readonly systemId: string
  readonly volumeLocator: string
  readonly naa: string
  readonly sizeBytes: string
}

export type SumStep = Readonly<
  {
    step: 'sum'
    agentAddress: string
    hostName: string
    groupName: string
    initiators: readonly string[]
  } & About
>

export type MoveStep = Readonly<
  { step: 'move'; fromPoolId: string; fromClassId: string; poolLocator: string; ratePercent: number } & About
>

export type Step =
  | TakeStep
  | SumStep
  | MoveStep
  | Readonly<{ step: 'class'; volumeId: string; classId: string; before: string | null }>

export async function runStep(step: Step, { facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  switch (step.step) {
    case 'take':
      return take(step, ports)
    case 'sum':
      return { sums: (await sumsNow(step, facts, ports)).join(' ') }
    case 'move':
      return move(step, facts, ports)
    case 'class':
      await ports.records.setClass([step.volumeId], step.classId)
      return {}
  }
}

/** What a host reads of the snapshot that was taken first, which nobody writes. */
export const sumsNow = (step: SumStep, facts: Facts, ports: ChangePorts): Promise<readonly string[]> =>
  whileShown(
    ports,
    { systemId: step.systemId, snapshotLocator: fact(facts, 'snapshotLocator'), groupName: step.groupName },
    step.initiators,
    `sums/${step.naa}`,
    targets => sumsOf(ports, step, targets, fact(facts, 'snapshotNaa'), BigInt(step.sizeBytes)),
  )

async function move(step: MoveStep, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const { systemId, volumeLocator, naa, poolLocator } = step
  const volumes = await ports.of(systemId, 'volumes')
  const known = { systemId, fromPoolId: step.fromPoolId, fromClassId: step.fromClassId }
  const isThere = async () => (await volumes.at(volumeLocator))?.poolLocator === poolLocator
  if (await isThere()) return known
  const task = await begunOnce(
    'movedAfter',
    facts,
    ports,
    async () => (await volumes.at(volumeLocator))?.task ?? null,
    async () => (await volumes.move(volumeLocator, naa, poolLocator, step.ratePercent)).task,
  )
  await waitForTask({ systemId, task, words: 'Moving', isDone: isThere }, ports)
  await ports.records.collect(systemId)
  return known
}

async function runningMove({ systemId }: MoveStep, task: string | null, ports: ChangePorts): Promise<string | null> {
  if (task === null) return null
  const { state } = await (await ports.of(systemId, 'tasks')).at(task)
  return state === 'running' ? task : null
}

export async function undoStep(step: Step, _context: unknown, ports: ChangePorts): Promise<string | undefined> {
  switch (step.step) {
    case 'take':
      return untake(step, ports)
    case 'sum':
      return undefined
    case 'class':
      await ports.records.setClass([step.volumeId], step.before)
      return undefined
    case 'move': {
      const tasks = await ports.of(step.systemId, 'tasks')
      const seen = await (await ports.of(step.systemId, 'volumes')).at(step.volumeLocator)
      if (seen?.poolLocator === step.poolLocator)
        return 'It has arrived in its new pool, and stays there until it is moved back.'
      const task = await runningMove(step, seen?.task ?? null, ports)
      if (task !== null) await tasks.stop(task)
      await ports.records.collect(step.systemId)
      return undefined
    }
  }
}
