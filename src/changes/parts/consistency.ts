import { nameCheck, type Estate } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Facts } from '../ChangeKind'
import { absent } from './checks'
import { found } from './known'

/** Puts volumes into a consistency group of their own. */
export type FormStep = Readonly<{
  step: 'form'
  systemId: string
  name: string
  volumeLocators: readonly string[]
}>

/** A name for a group of a system: one that can be written, and that no other group there has. */
export const groupNameChecks = (estate: Estate, systemId: string | undefined, name: string): readonly PlanCheck[] => [
  nameCheck(name, 'the group'),
  absent(
    'name-free',
    estate.consistencyGroups.find(each => each.systemId === systemId && each.name === name),
    'The name is free.',
    () => 'A consistency group of that name exists on the system.',
    { field: 'name' },
  ),
]

export async function form(step: FormStep, key: string, ports: ChangePorts): Promise<Facts> {
  const groups = await ports.of(step.systemId, 'consistencyGroups')
  const made = (await groups.byKey(key)) ?? (await groups.form(step.name, step.volumeLocators, key))
  await ports.records.collect(step.systemId)
  return found({
    systemId: step.systemId,
    groupLocator: made.locator,
    consistencyGroupId: await ports.records.idAt(step.systemId, made.locator),
  })
}

export async function unform(step: FormStep, key: string, ports: ChangePorts): Promise<undefined> {
  const groups = await ports.of(step.systemId, 'consistencyGroups')
  const made = await groups.byKey(key)
  if (made === undefined) return
  await groups.dissolve(made.locator, step.name)
  await ports.records.collect(step.systemId)
  await ports.records.gone(step.systemId, [made.locator])
}
