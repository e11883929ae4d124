import type { RaidSchemeText } from '@/core/estate'
import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../ChangeKind'
import { waitForTask } from '../parts/waitForTask'

export type Step = Readonly<
  | {
      step: 'create'
      systemId: string
      name: string
      scheme: RaidSchemeText
      groups: readonly (readonly string[])[]
      spares: readonly string[]
      snapshotSharePercent: number
    }
  | { step: 'initialise'; systemId: string }
>

/** May run again from the top after a kill at any point: it looks for the pool that bears its key before it asks for one. */
export async function runStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  const system = await ports.system(step.systemId)
  if (step.step === 'initialise') {
    await waitForTask(system, facts['task'] === '' ? null : (facts['task'] ?? null), 'Initialising', ports)
    return { poolId: (await ports.records.idAt(step.systemId, facts['poolLocator'] ?? '')) ?? '' }
  }
  const made =
    (await system.poolByKey(key)) ??
    (await system.createPool(
      {
        name: step.name,
        scheme: step.scheme,
        groups: step.groups,
        spares: step.spares,
        snapshotReserveRatio: step.snapshotSharePercent / 100,
      },
      key,
    ))
  return { poolLocator: made.locator, task: made.task ?? '' }
}

export async function undoStep(step: Step, { key }: StepContext, ports: ChangePorts): Promise<undefined> {
  if (step.step !== 'create') return
  const system = await ports.system(step.systemId)
  const made = await system.poolByKey(key)
  if (made !== undefined) await system.removePool(made.locator)
}
