import { type ShrinkClusterIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { Evidence, Facts } from '../../ChangeKind'
import { waitForTask } from '../../parts/waitForTask'

export type Step =
  | {
      readonly step: 'empty'
      readonly systemId: string
      readonly poolLocator: string
      readonly driveLocators: readonly string[]
      readonly rateRatio: number
    }
  | { readonly step: 'part'; readonly systemId: string; readonly staying: readonly string[] }

export async function runStep(step: Step, _: object, ports: ChangePorts): Promise<Facts> {
  const clusters = await ports.of(step.systemId, 'clusters')
  const spreadPools = await ports.of(step.systemId, 'spreadPools')
  if (step.step === 'part') {
    await clusters.setMembers(step.staying)
    return {}
  }
  const running = await spreadPools.moving(step.poolLocator)
  const isDone = async () => (await spreadPools.moving(step.poolLocator)) === null
  const wait = { systemId: step.systemId, words: 'Moving pieces', isDone }
  if (running !== null) {
    await waitForTask({ ...wait, task: running }, ports)
  } else {
    const held = (await spreadPools.banksOf(step.poolLocator)).flatMap(bank => [
      bank.cacheLocator,
      ...bank.capacityLocators,
    ])
    const left = step.driveLocators.filter(locator => held.includes(locator))
    if (left.length > 0)
      await waitForTask(
        { ...wait, task: await spreadPools.removeDrives(step.poolLocator, left, step.rateRatio) },
        ports,
      )
  }
  return {}
}

export async function prove(intent: Intent, made: Plan<Step>, _: object, ports: ChangePorts): Promise<Evidence[]> {
  const spreadPools = await ports.of(intent.systemId, 'spreadPools')
  const empty = made.steps.map(each => each.step).find(step => step.step === 'empty')
  if (empty?.step !== 'empty') return []
  const held = (await spreadPools.banksOf(empty.poolLocator)).flatMap(bank => [
    bank.cacheLocator,
    ...bank.capacityLocators,
  ])
  const left = empty.driveLocators.filter(locator => held.includes(locator))
  return [
    {
      claim: 'None of the drives is in the pool any more',
      holds: empty.driveLocators.length > 0 && left.length === 0,
      measured: { stillIn: `${left.length}`, taken: `${empty.driveLocators.length}` },
    },
  ]
}
