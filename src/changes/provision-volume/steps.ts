import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../ChangeKind'
import { waitForTask } from '../parts/waitForTask'

export type Step = Readonly<
  | { step: 'create'; systemId: string; name: string; poolLocator: string; sizeBytes: string; isThin: boolean }
  | { step: 'map'; systemId: string; groupName: string; initiators: readonly string[] }
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
  await waitForTask(system, made.task, 'Zeroing', ports)
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
    if (mapping !== undefined) await system.unmapVolume(mapping.locator)
    return
  }
  // Nothing has been written to it yet but what a proof wrote, so it need not go through holding.
  const made = await system.volumeByKey(key)
  if (made !== undefined) await system.removeVolume(made.locator)
}
