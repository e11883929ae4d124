import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../ChangeKind'
import { unmapped } from '../parts/unmapped'
import { waitForTask } from '../parts/waitForTask'

export type Step = Readonly<
  | { step: 'create'; systemId: string; name: string; poolLocator: string; sizeBytes: string; isThin: boolean }
  | {
      step: 'map'
      systemId: string
      groupName: string
      initiators: readonly string[]
      /** What is in the group on the system besides, of which we know nothing: it stays there. */
      kept: readonly string[]
    }
>

export async function runStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  const system = await ports.system(step.systemId)
  if (step.step === 'map') {
    const mapping = await system.mapVolume(facts['volumeLocator'] ?? '', step.groupName, step.initiators, key)
    return { mappingLocator: mapping.locator, lun: `${mapping.lun}` }
  }
  const { name, poolLocator, isThin } = step
  const made =
    (await system.volumeByKey(key)) ??
    (await system.createVolume({ name, poolLocator, isThin, sizeBytes: BigInt(step.sizeBytes) }, key))
  const isDone = async () => (await system.volume(made.locator))?.isReady === true
  await waitForTask({ system, systemId: step.systemId, task: made.task, words: 'Zeroing', isDone }, ports)
  const seen = await system.volume(made.locator)
  await ports.records.collect(step.systemId)
  return {
    systemId: step.systemId,
    volumeLocator: made.locator,
    naa: seen?.naa ?? '',
    volumeId: (await ports.records.idAt(step.systemId, made.locator)) ?? '',
  }
}

export async function undoStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<undefined> {
  const system = await ports.system(step.systemId)
  if (step.step === 'map') {
    const mapping = (await system.mappingsOf(facts['volumeLocator'] ?? '')).find(
      each => each.groupName === step.groupName,
    )
    if (mapping !== undefined) await unmapped(system, facts['volumeLocator'] ?? '', mapping, step.systemId, ports)
    return
  }
  // Nothing has been written to it yet but what a proof wrote, so it need not go through holding.
  const made = await system.volumeByKey(key)
  const stated = made === undefined ? undefined : await system.volume(made.locator)
  if (made === undefined || stated === undefined) return
  await system.removeVolume(made.locator, stated.naa)
  await ports.records.collect(step.systemId)
  await ports.records.gone(step.systemId, [made.locator])
}
