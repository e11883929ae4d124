import type { ChangePorts, Volumes } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { form, unform, type FormStep } from '../../parts/consistency'
import { fact } from '../../parts/known'
import { unmapped } from '../../parts/unmapped'
import { waitForTask } from '../../parts/waitForTask'
import { askedToProve } from '../../parts/signIn'

export type Step = Readonly<
  | {
      step: 'create'
      /** Under which the places of what it makes are kept. */
      batch: string
      systemId: string
      volumes: readonly { readonly name: string; readonly sizeBytes: string; readonly poolLocator: string }[]
      isThin: boolean
      classId?: string
      application?: string | null
    }
  | { step: 'map'; batch: string; systemId: string; groupName: string; initiators: readonly string[] }
  | { step: 'group'; batches: readonly string[]; systemId: string; name: string }
>

/** So much is asked of one system at once. */
const atOnce = 4
const keysOf = (step: Extract<Step, { step: 'create' }>, key: string) =>
  step.volumes.map((_, index) => `${key}/${index}`)

/** The places of what a batch has made, as its facts keep them. */
export const placesIn = (facts: Facts, batch: string): string[] => JSON.parse(fact(facts, `made ${batch}`)) as string[]

export async function runStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  if (step.step === 'map') return mapAll(step, key, facts, ports)
  if (step.step === 'create') return createAll(step, key, ports)
  return form(formStep(step, facts), key, ports)
}

/** What a step forms of all that the steps before it have made. */
const formStep = ({ systemId, name, batches }: Extract<Step, { step: 'group' }>, facts: Facts): FormStep => ({
  step: 'form',
  systemId,
  name,
  volumeLocators: batches.flatMap(batch => placesIn(facts, batch)),
})

/** Those that are there already are found by their keys, all at once; the others are made, some at a time. */
async function createAll(step: Extract<Step, { step: 'create' }>, key: string, ports: ChangePorts): Promise<Facts> {
  const volumes = await ports.of(step.systemId, 'volumes')
  const keys = keysOf(step, key)
  const there = await volumes.byKeys(keys)
  const made = keys.map(each => there.get(each))
  for (let from = 0; from < keys.length; from += atOnce) {
    await Promise.all(
      keys.slice(from, from + atOnce).map(async (own, offset) => {
        const wanted = step.volumes[from + offset]
        if (wanted === undefined || made[from + offset] !== undefined) return
        const { name, poolLocator, sizeBytes } = wanted
        made[from + offset] = await volumes.create(
          { name, poolLocator, isThin: step.isThin, sizeBytes: BigInt(sizeBytes) },
          own,
        )
      }),
    )
    await ports.progress(
      Math.min(1, (from + atOnce) / keys.length),
      `${Math.min(keys.length, from + atOnce)} of ${keys.length}`,
    )
  }
  for (const each of made)
    if (each !== undefined)
      await waitForTask(
        { systemId: step.systemId, task: each.task, words: 'Zeroing', isDone: () => isReady(volumes, each.locator) },
        ports,
      )
  await ports.records.collect(step.systemId)
  const locators = made.flatMap(each => each?.locator ?? [])
  await noteAll(step, locators, ports)
  return { systemId: step.systemId, [`made ${step.batch}`]: JSON.stringify(locators) }
}

/** What is promised of them, and what they serve. */
async function noteAll(
  { systemId, classId, application }: Extract<Step, { step: 'create' }>,
  locators: readonly string[],
  ports: ChangePorts,
): Promise<void> {
  if (classId === undefined && application == null) return
  const found = await Promise.all(locators.map(locator => ports.records.idAt(systemId, locator)))
  const ids = found.filter(id => id !== undefined)
  if (classId !== undefined) await ports.records.setClass(ids, classId)
  if (application != null) await ports.records.setApplication(ids, application)
}

const isReady = async (volumes: Volumes, locator: string) => (await volumes.at(locator))?.isReady === true

async function mapAll(
  step: Extract<Step, { step: 'map' }>,
  key: string,
  facts: Facts,
  ports: ChangePorts,
): Promise<Facts> {
  const mappings = await ports.of(step.systemId, 'mappings')
  const places = placesIn(facts, step.batch)
  await askedToProve(ports, step.systemId, step.initiators)
  // One after another: the numbers by which hosts see them follow the order of the list.
  for (const [index, locator] of places.entries()) {
    await mappings.make(locator, step.groupName, step.initiators, `${key}/${index}`)
    await ports.progress((index + 1) / places.length, `${index + 1} of ${places.length}`)
  }
  await ports.records.collect(step.systemId)
  return {}
}

export async function undoStep(step: Step, { key, facts }: StepContext, ports: ChangePorts): Promise<undefined> {
  if (step.step === 'group') return unform({ ...step, step: 'form', volumeLocators: [] }, key, ports)
  if (step.step === 'map') {
    const places = facts[`made ${step.batch}`]
    if (places === undefined) return
    const mappings = await ports.of(step.systemId, 'mappings')
    for (const locator of JSON.parse(places) as string[]) {
      const mapping = (await mappings.of(locator)).find(each => each.groupName === step.groupName)
      if (mapping !== undefined) await unmapped(locator, mapping, step.systemId, ports)
    }
    return
  }
  const volumes = await ports.of(step.systemId, 'volumes')
  const gone: string[] = []
  // Nobody has written to them yet, so they need not go through holding.
  for (const { locator } of (await volumes.byKeys(keysOf(step, key))).values()) {
    const seen = await volumes.at(locator)
    if (seen !== undefined) await volumes.remove(locator, seen.naa)
    gone.push(locator)
  }
  if (gone.length === 0) return
  await ports.records.collect(step.systemId)
  await ports.records.gone(step.systemId, gone)
}
