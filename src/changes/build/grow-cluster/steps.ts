import type { GrowClusterIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { BankWanted, ChangePorts } from '@/ports'
import type { Evidence, Facts, StepContext } from '../../ChangeKind'
import { switchOnAsFarAsPossible, switchRestartService } from '../../parts/nodes'
import { found } from '../../parts/known'
import { waitForTask } from '../../parts/waitForTask'

export type Step =
  | {
      readonly step: 'join'
      readonly systemId: string
      readonly nodeLocators: readonly string[]
      readonly joining: readonly string[]
    }
  | {
      readonly step: 'add'
      readonly systemId: string
      readonly poolLocator: string
      readonly banks: readonly BankWanted[]
      readonly rateRatio: number
    }
  | { readonly step: 'move'; readonly systemId: string; readonly poolLocator: string }

export async function runStep(step: Step, { facts }: StepContext, ports: ChangePorts): Promise<Facts> {
  const nodes = await ports.of(step.systemId, 'nodes')
  const clusters = await ports.of(step.systemId, 'clusters')
  const spreadPools = await ports.of(step.systemId, 'spreadPools')
  if (step.step === 'join') {
    await switchRestartService(nodes, step.joining, false, ports)
    const known = await clusters.now()
    if (step.nodeLocators.some(locator => known?.nodeLocators.includes(locator) !== true))
      await clusters.setMembers(step.nodeLocators)
    await switchRestartService(nodes, step.joining, true, ports)
    return {}
  }
  if (step.step === 'add') {
    const held = new Set((await spreadPools.banksOf(step.poolLocator)).flatMap(bank => bank.capacityLocators))
    if (step.banks.every(bank => bank.capacityLocators.every(locator => held.has(locator)))) return {}
    const task = await spreadPools.addDrives(step.poolLocator, step.banks, step.rateRatio)
    return found({ moveTask: task })
  }
  const isDone = async () => (await spreadPools.moving(step.poolLocator)) === null
  // The task that adding named says how it ended; without one, whatever moves is waited for.
  const task = facts['moveTask'] || (await spreadPools.moving(step.poolLocator))
  await waitForTask({ systemId: step.systemId, task, words: 'Moving pieces', isDone }, ports)
  return {}
}

export async function undoStep(step: Step, _: object, ports: ChangePorts): Promise<string | undefined> {
  const spreadPools = await ports.of(step.systemId, 'spreadPools')
  const clusters = await ports.of(step.systemId, 'clusters')
  const nodes = await ports.of(step.systemId, 'nodes')
  if (step.step === 'move') return undefined
  if (step.step === 'add') {
    const added = new Set(step.banks.flatMap(bank => [bank.cacheLocator, ...bank.capacityLocators]))
    const banks = await spreadPools.banksOf(step.poolLocator)
    const held = banks.flatMap(bank => bank.capacityLocators).filter(locator => added.has(locator))
    if (held.length === 0) return undefined
    const isDone = async () => (await spreadPools.moving(step.poolLocator)) === null
    const wait = { systemId: step.systemId, isDone }
    await waitForTask({ ...wait, task: await spreadPools.moving(step.poolLocator), words: 'Moving pieces' }, ports)
    const task = await spreadPools.removeDrives(step.poolLocator, held, 0.5)
    await waitForTask({ ...wait, task, words: 'Moving back' }, ports)
    return undefined
  }
  await clusters.setMembers(step.nodeLocators.filter(locator => !step.joining.includes(locator)))
  return switchOnAsFarAsPossible(nodes, step.joining)
}

export async function prove(intent: Intent, made: Plan<Step>, _: object, ports: ChangePorts): Promise<Evidence[]> {
  const spreadPools = await ports.of(intent.systemId, 'spreadPools')
  const add = made.steps.map(each => each.step).find(step => step.step === 'add')
  if (add?.step !== 'add') return []
  const held = await spreadPools.banksOf(add.poolLocator)
  const wanted = add.banks.flatMap(bank =>
    bank.capacityLocators.map(locator => ({ locator, cache: bank.cacheLocator })),
  )
  const inPlace = wanted.filter(({ locator, cache }) =>
    held.some(bank => bank.cacheLocator === cache && bank.capacityLocators.includes(locator)),
  )
  const pool = await (await ports.of(intent.systemId, 'pools')).at(add.poolLocator)
  return [
    {
      claim: 'Each drive is in its bank',
      holds: wanted.length > 0 && inPlace.length === wanted.length,
      measured: { inPlace: `${inPlace.length}`, planned: `${wanted.length}` },
    },
    {
      claim: 'Nothing moves any more, and the pool is whole',
      holds: (await spreadPools.moving(add.poolLocator)) === null && pool?.isReady === true,
      measured: { usableBytes: `${pool?.usableBytes ?? 0n}` },
    },
  ]
}
