import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { take, untake, type TakeStep } from '../../parts/copies'
import { fact, found } from '../../parts/known'
import { unmapped } from '../../parts/unmapped'
import { waitForTask } from '../../parts/waitForTask'

type EnlargeStep = Readonly<{ step: 'enlarge'; systemId: string; sizeBytes: string }>

export type Step =
  | TakeStep
  | Readonly<{
      step: 'clone'
      systemId: string
      /** Null for the one that the step before has taken. */
      snapshot: { readonly locator: string; readonly naa: string } | null
      name: string
      poolLocator: string
    }>
  | EnlargeStep
  | Readonly<{ step: 'map'; systemId: string; groupName: string; initiators: readonly string[] }>

/** The snapshot of which the clone is made. */
const sourceOf = (step: Extract<Step, { step: 'clone' }>, facts: Facts) =>
  step.snapshot ?? { locator: fact(facts, 'snapshotLocator'), naa: fact(facts, 'snapshotNaa') }

export async function runStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  if (step.step === 'take') return take(step, ports)
  if (step.step === 'enlarge') return enlarge(step, facts, ports)
  if (step.step === 'map') {
    const mapping = await (await ports.of(step.systemId, 'mappings')).make(
      fact(facts, 'cloneLocator'),
      step.groupName,
      step.initiators,
      key,
    )
    return { lun: `${mapping.lun}` }
  }
  const { systemId, name, poolLocator } = step
  const source = sourceOf(step, facts)
  const snapshots = await ports.of(systemId, 'snapshots')
  const made =
    (await snapshots.named(source.locator, name)) ??
    (await copiedAlready(facts, name, systemId, ports)) ??
    (await snapshots.clone(source.locator, source.naa, poolLocator, name))
  if (facts['cloneLocator'] === undefined) await ports.keep({ cloneLocator: made.locator })
  const isDone = async () => !(await snapshots.isShared(made.locator))
  await waitForTask({ systemId, task: made.task, words: 'Copying', isDone }, ports)
  const seen = await (await ports.of(systemId, 'volumes')).at(made.locator)
  await ports.records.collect(systemId)
  return found({
    systemId,
    snapshotLocator: source.locator,
    cloneLocator: made.locator,
    naa: seen?.naa,
    cloneId: await ports.records.idAt(systemId, made.locator),
  })
}

/** One that has the size already, or a larger one, is left as it is. */
async function enlarge({ systemId, sizeBytes }: EnlargeStep, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const volumes = await ports.of(systemId, 'volumes')
  const locator = fact(facts, 'cloneLocator')
  const wanted = BigInt(sizeBytes)
  const seen = await volumes.at(locator)
  const task =
    seen !== undefined && seen.sizeBytes >= wanted
      ? seen.task
      : (await volumes.enlarge(locator, fact(facts, 'naa'), wanted)).task
  const isDone = async () => {
    const then = await volumes.at(locator)
    return then !== undefined && then.sizeBytes >= wanted && then.isReady
  }
  await waitForTask({ systemId, task, words: 'Enlarging', isDone }, ports)
  await ports.records.collect(systemId)
  return {}
}

/** A clone that was copied in full says no more of what it was made: it is known by its name at the place where it was seen before. */
async function copiedAlready(facts: Facts, name: string, systemId: string, ports: ChangePorts) {
  const locator = facts['cloneLocator']
  if (locator === undefined) return undefined
  const seen = await (await ports.of(systemId, 'volumes')).at(locator)
  return seen?.name === name ? { locator, task: seen.task } : undefined
}

export async function undoStep(step: Step, { facts }: StepContext, ports: ChangePorts): Promise<undefined> {
  if (step.step === 'take') return untake(step, ports)
  const locator = facts['cloneLocator']
  // What was enlarged goes with the clone.
  if (locator === undefined || step.step === 'enlarge') return
  if (step.step === 'map') {
    const mapped = await (await ports.of(step.systemId, 'mappings')).of(locator)
    const mapping = mapped.find(each => each.groupName === step.groupName)
    if (mapping !== undefined) await unmapped(locator, mapping, step.systemId, ports)
    return
  }
  const volumes = await ports.of(step.systemId, 'volumes')
  // Nobody has seen it yet, so it need not go through holding.
  const seen = await volumes.at(locator)
  if (seen === undefined) return
  await volumes.remove(locator, seen.naa)
  await ports.records.collect(step.systemId)
  await ports.records.gone(step.systemId, [locator])
}
