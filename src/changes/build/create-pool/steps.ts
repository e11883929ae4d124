import type { RaidSchemeText } from '@/core/estate'
import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { waitForTask } from '../../parts/waitForTask'
import { fact, found } from '../../parts/known'

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
  const pools = await ports.of(step.systemId, 'pools')
  if (step.step === 'initialise') {
    const locator = fact(facts, 'poolLocator')
    const isDone = async () => (await pools.at(locator))?.isReady === true
    const task = facts['task'] ?? null
    await waitForTask({ systemId: step.systemId, task, words: 'Initialising', isDone }, ports)
    await ports.records.collect(step.systemId)
    return found({ poolId: await ports.records.idAt(step.systemId, locator) })
  }
  const made =
    (await pools.byKey(key)) ??
    (await pools.create(
      {
        name: step.name,
        scheme: step.scheme,
        groups: step.groups,
        spares: step.spares,
        snapshotReserveRatio: step.snapshotSharePercent / 100,
      },
      key,
    ))
  return found({ poolLocator: made.locator, task: made.task })
}

export async function undoStep(step: Step, { key }: StepContext, ports: ChangePorts): Promise<undefined> {
  if (step.step !== 'create') return
  const pools = await ports.of(step.systemId, 'pools')
  const made = await pools.byKey(key)
  if (made === undefined) return
  await pools.remove(made.locator, step.name)
  await ports.records.collect(step.systemId)
  await ports.records.gone(step.systemId, [made.locator])
}
