import type { SpreadSchemeText } from '@/core/estate'
import type { BankWanted, ChangePorts } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { PathsFail } from '../../errors'
import { switchOnAsFarAsPossible, switchRestartService } from '../../parts/nodes'
import { found } from '../../parts/known'
import { probePaths } from '../../parts/probePaths'
import { waitForTask } from '../../parts/waitForTask'

interface OfSystem {
  readonly systemId: string
}
export type Step =
  | (OfSystem & { readonly step: 'probe'; readonly nodeIds: readonly string[] })
  | (OfSystem & { readonly step: 'pause-restart' | 'resume-restart'; readonly nodeLocators: readonly string[] })
  | (OfSystem & { readonly step: 'form'; readonly name: string; readonly nodeLocators: readonly string[] })
  | (OfSystem & {
      readonly step: 'lay-out'
      readonly name: string
      readonly scheme: SpreadSchemeText
      readonly domain: 'node' | 'enclosure' | 'rack'
      readonly keepsRebuildReserve: boolean
      readonly snapshotSharePercent: number
      readonly banks: readonly BankWanted[]
      readonly usableBytes: string
    })

export async function runStep(step: Step, { key }: StepContext, ports: ChangePorts): Promise<Facts> {
  const pools = await ports.of(step.systemId, 'pools')
  const clusters = await ports.of(step.systemId, 'clusters')
  const spreadPools = await ports.of(step.systemId, 'spreadPools')
  const nodes = await ports.of(step.systemId, 'nodes')
  switch (step.step) {
    case 'probe':
      await probeAgain(step, ports)
      return {}
    case 'pause-restart':
    case 'resume-restart':
      await switchRestartService(nodes, step.nodeLocators, step.step === 'resume-restart', ports)
      return {}
    case 'form': {
      const known = await clusters.now()
      const task =
        known === undefined
          ? (await clusters.form(step.name, step.nodeLocators, key)).task
          : known.isReady
            ? null
            : known.task
      const isDone = async () => (await clusters.now())?.isReady === true
      await waitForTask({ systemId: step.systemId, task, words: 'Joining', isDone }, ports)
      return {}
    }
    case 'lay-out': {
      const made =
        (await pools.byKey(key)) ??
        (await spreadPools.create({ ...step, snapshotReserveRatio: step.snapshotSharePercent / 100 }, key))
      const isDone = async () => (await pools.at(made.locator))?.isReady === true
      await waitForTask({ systemId: step.systemId, task: made.task, words: 'Laying out', isDone }, ports)
      await ports.records.collect(step.systemId)
      return found({ poolLocator: made.locator, poolId: await ports.records.idAt(step.systemId, made.locator) })
    }
  }
}

/** Between the draft and now a cable may have been pulled: forming begins with looking again. */
async function probeAgain(
  { systemId, nodeIds }: { readonly systemId: string; readonly nodeIds: readonly string[] },
  ports: ChangePorts,
): Promise<void> {
  const estate = await ports.estate()
  const nodes = estate.nodes.filter(node => nodeIds.includes(node.id))
  const probe = await probePaths(systemId, nodes, estate.nodePorts, address => ports.node(address), new Date())
  const failing = probe.answers.filter(each => (each.passedMtu ?? 0) < probe.wantedMtu)
  const nameOf = (id: string) => nodes.find(node => node.id === id)?.name ?? ''
  const [first] = failing
  if (first !== undefined) throw new PathsFail(nameOf(first.fromNodeId), nameOf(first.toNodeId), failing.length)
}

export async function undoStep(step: Step, { key }: StepContext, ports: ChangePorts): Promise<string | undefined> {
  const pools = await ports.of(step.systemId, 'pools')
  const clusters = await ports.of(step.systemId, 'clusters')
  const nodes = await ports.of(step.systemId, 'nodes')
  switch (step.step) {
    case 'probe':
    case 'resume-restart':
      return undefined
    case 'pause-restart':
      return switchOnAsFarAsPossible(nodes, step.nodeLocators)
    case 'form':
      await clusters.dissolve(step.name)
      return undefined
    case 'lay-out': {
      const made = await pools.byKey(key)
      if (made === undefined) return undefined
      await pools.remove(made.locator, step.name)
      await ports.records.collect(step.systemId)
      await ports.records.gone(step.systemId, [made.locator])
      return undefined
    }
  }
}
