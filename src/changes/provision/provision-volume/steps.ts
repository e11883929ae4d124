import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { unmapped } from '../../parts/unmapped'
import { waitForTask } from '../../parts/waitForTask'
import { fact, found } from '../../parts/known'
import { askedToProve } from '../../parts/signIn'

export type Step = Readonly<
  | {
      step: 'create'
      systemId: string
      name: string
      poolLocator: string
      sizeBytes: string
      isThin: boolean
      classId?: string
      application?: string | null
    }
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
  if (step.step === 'map') {
    const mappings = await ports.of(step.systemId, 'mappings')
    await askedToProve(ports, step.systemId, step.initiators)
    const mapping = await mappings.make(fact(facts, 'volumeLocator'), step.groupName, step.initiators, key)
    return { mappingLocator: mapping.locator, lun: `${mapping.lun}` }
  }
  const volumes = await ports.of(step.systemId, 'volumes')
  const { name, poolLocator, isThin } = step
  const made =
    (await volumes.byKey(key)) ??
    (await volumes.create({ name, poolLocator, isThin, sizeBytes: BigInt(step.sizeBytes) }, key))
  const isDone = async () => (await volumes.at(made.locator))?.isReady === true
  await waitForTask({ systemId: step.systemId, task: made.task, words: 'Zeroing', isDone }, ports)
  const seen = await volumes.at(made.locator)
  await ports.records.collect(step.systemId)
  const volumeId = await ports.records.idAt(step.systemId, made.locator)
  if (volumeId !== undefined && step.classId !== undefined) await ports.records.setClass([volumeId], step.classId)
  if (volumeId !== undefined && step.application != null)
    await ports.records.setApplication([volumeId], step.application)
  return found({ systemId: step.systemId, volumeLocator: made.locator, naa: seen?.naa, volumeId })
}

export async function undoStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<undefined> {
  if (step.step === 'map') {
    const mappings = await ports.of(step.systemId, 'mappings')
    const volumeLocator = facts['volumeLocator']
    if (volumeLocator === undefined) return
    const mapping = (await mappings.of(volumeLocator)).find(each => each.groupName === step.groupName)
    if (mapping !== undefined) await unmapped(volumeLocator, mapping, step.systemId, ports)
    return
  }
  const volumes = await ports.of(step.systemId, 'volumes')
  // Nothing has been written to it yet but what a proof wrote, so it need not go through holding.
  const made = await volumes.byKey(key)
  const stated = made === undefined ? undefined : await volumes.at(made.locator)
  if (made === undefined || stated === undefined) return
  await volumes.remove(made.locator, stated.naa)
  await ports.records.collect(step.systemId)
  await ports.records.gone(step.systemId, [made.locator])
}
