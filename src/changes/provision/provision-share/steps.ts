import type { ChangePorts, ShareWanted } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { runExtra, type ExtraStep } from '../../parts/files/shareExtras'
import { fact } from '../../parts/known'
import * as volume from '../provision-volume/steps'

export type Step =
  | Extract<volume.Step, { readonly step: 'create' }>
  | Readonly<{ step: 'file-system'; systemId: string; name: string }>
  | Readonly<{ step: 'export'; systemId: string; wanted: ShareWanted }>
  | ExtraStep

export async function runStep(step: Step, context: StepContext, ports: ChangePorts): Promise<Facts> {
  if (step.step === 'create') return volume.runStep(step, context, ports)
  const shares = await ports.of(step.systemId, 'shares')
  const { key, facts } = context
  if (step.step === 'file-system') {
    const there = await shares.fileSystemByKey(key)
    return { fileSystemLocator: there ?? (await shares.makeFileSystem(fact(facts, 'volumeLocator'), step.name, key)) }
  }
  if (step.step !== 'export') {
    await runExtra(step, fact(facts, 'shareLocator'), ports)
    return {}
  }
  const on = fact(facts, 'fileSystemLocator')
  return { shareLocator: (await shares.byKey(on, key)) ?? (await shares.make(on, step.wanted, key)) }
}

export async function undoStep(step: Step, context: StepContext, ports: ChangePorts): Promise<undefined> {
  if (step.step === 'create') return volume.undoStep(step, context, ports)
  const shares = await ports.of(step.systemId, 'shares')
  const { key, facts } = context
  if (step.step === 'file-system') {
    const there = await shares.fileSystemByKey(key)
    if (there !== undefined) await shares.removeFileSystem(there, step.name)
    return
  }
  // What it was given besides goes with it.
  if (step.step !== 'export') return
  const on = facts['fileSystemLocator']
  const there = on === undefined ? undefined : await shares.byKey(on, key)
  if (there === undefined) return
  await shares.remove(there, step.wanted.name)
  await ports.records.collect(step.systemId)
  await ports.records.gone(step.systemId, [there])
}
