import type { ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { take, untake, type TakeStep } from '../../parts/copies'
import { fact } from '../../parts/known'
import { unmapped } from '../../parts/unmapped'
import { waitForTask } from '../../parts/waitForTask'
import { askedToProve } from '../../parts/signIn'

export type CloneStep = Readonly<{
  step: 'clone'
  /** Under which the places of what it makes are kept. */
  batch: string
  systemId: string
  /** Null for the one that the first step has taken. */
  snapshot: { readonly locator: string; readonly naa: string } | null
  names: readonly string[]
  poolLocator: string
  application: string | null
}>
type MapStep = Readonly<{
  step: 'map'
  batch: string
  systemId: string
  groupName: string
  initiators: readonly string[]
}>
export type Step = TakeStep | CloneStep | MapStep

/** Places of clones, by batch, as the steps' facts keep them. */
export const placesOf = (facts: Facts, batch: string): string[] =>
  JSON.parse(facts[`clones ${batch}`] ?? '[]') as string[]

/** The snapshot of which the clones are made. */
export const sourceOf = ({ snapshot }: Pick<CloneStep, 'snapshot'>, facts: Facts) =>
  snapshot ?? { locator: fact(facts, 'snapshotLocator'), naa: fact(facts, 'snapshotNaa') }

export async function runStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  if (step.step === 'take') return take(step, ports)
  return step.step === 'clone' ? cloneAll(step, facts, ports) : mapAll(step, key, facts, ports)
}

/** Each is looked for by its name before it is made, so that a step which was cut off makes none twice. */
async function cloneAll(step: CloneStep, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const { systemId, names, poolLocator, application } = step
  const source = sourceOf(step, facts)
  const snapshots = await ports.of(systemId, 'snapshots')
  const places: string[] = []
  for (const [index, name] of names.entries()) {
    const made =
      (await snapshots.named(source.locator, name)) ??
      (await snapshots.clone(source.locator, source.naa, poolLocator, name))
    const isDone = () => Promise.resolve(true)
    if (made.task !== null) await waitForTask({ systemId, task: made.task, words: `Cloning ${name}`, isDone }, ports)
    places.push(made.locator)
    await ports.progress((index + 1) / names.length, `${index + 1} of ${names.length}`)
  }
  await ports.records.collect(systemId)
  if (application !== null) {
    const ids = await Promise.all(places.map(place => ports.records.idAt(systemId, place)))
    await ports.records.setApplication(
      ids.filter(id => id !== undefined),
      application,
    )
  }
  return { systemId, [`clones ${step.batch}`]: JSON.stringify(places) }
}

async function mapAll(step: MapStep, key: string, facts: Facts, ports: ChangePorts): Promise<Facts> {
  const mappings = await ports.of(step.systemId, 'mappings')
  const places = placesOf(facts, step.batch)
  await askedToProve(ports, step.systemId, step.initiators)
  for (const [index, locator] of places.entries()) {
    await mappings.make(locator, step.groupName, step.initiators, `${key}/${index}`)
    await ports.progress((index + 1) / places.length, `${index + 1} of ${places.length}`)
  }
  await ports.records.collect(step.systemId)
  return {}
}

export async function undoStep(step: Step, { facts }: StepContext, ports: ChangePorts): Promise<undefined> {
  if (step.step === 'take') return untake(step, ports)
  if (step.step === 'map') {
    const mappings = await ports.of(step.systemId, 'mappings')
    for (const locator of placesOf(facts, step.batch)) {
      const mapping = (await mappings.of(locator)).find(each => each.groupName === step.groupName)
      if (mapping !== undefined) await unmapped(locator, mapping, step.systemId, ports)
    }
    return
  }
  const source = sourceOf(step, facts)
  const snapshots = await ports.of(step.systemId, 'snapshots')
  const volumes = await ports.of(step.systemId, 'volumes')
  const gone: string[] = []
  // Nobody has seen them yet, so they need not go through holding.
  for (const name of step.names) {
    const made = await snapshots.named(source.locator, name)
    const seen = made === undefined ? undefined : await volumes.at(made.locator)
    if (seen === undefined) continue
    await volumes.remove(seen.locator, seen.naa)
    gone.push(seen.locator)
  }
  if (gone.length === 0) return
  await ports.records.collect(step.systemId)
  await ports.records.gone(step.systemId, gone)
}
