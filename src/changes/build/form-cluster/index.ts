import { formClusterIntent, type FormClusterIntent as Intent } from '@/core/intents'
import { byId, within } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import { openFindings } from '../../parts/openFindings'
import { probeEvidence } from '../../parts/probeEvidence'
import { plan } from './plan'
import { runStep, undoStep, type Step } from './steps'
import { fact } from '../../parts/known'

export const formCluster: ChangeKind<Intent, Step> = {
  ...formClusterIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  runStep,
  undoStep,
  prove,
  collects: ({ systemId }) => [systemId],
  reverse: ({ systemId }, facts) =>
    facts['poolId'] === undefined ? undefined : { kind: 'remove-pool', intent: { systemId, poolId: facts['poolId'] } },
}

async function prove(intent: Intent, made: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const steps = made.steps.map(each => each.step)
  const form = steps.find(step => step.step === 'form')
  const layOut = steps.find(step => step.step === 'lay-out')
  const wantedNodes = form?.step === 'form' ? form.nodeLocators : []
  const estate = await ports.estate()
  const nodeIds = estate.nodes.filter(node => wantedNodes.includes(node.locator)).map(node => node.id)
  return [
    await nodesJoined(intent.systemId, wantedNodes, ports),
    ...(await poolAsPlanned(intent.systemId, layOut, fact(facts, 'poolLocator'), ports)),
    await restartServicesOn(intent.systemId, wantedNodes, ports),
    ...(await probeEvidence(intent.systemId, ports, nodeIds)),
    await healthAtBirth(intent, ports),
  ]
}

async function nodesJoined(systemId: string, wanted: readonly string[], ports: ChangePorts): Promise<Evidence> {
  const cluster = await (await ports.of(systemId, 'clusters')).now()
  const inIt = [...(cluster?.nodeLocators ?? [])].sort().join()
  return {
    claim: 'All chosen nodes are in the cluster',
    holds: wanted.length > 0 && cluster?.isReady === true && inIt === [...wanted].sort().join(),
    measured: { nodes: `${cluster?.nodeLocators.length ?? 0}`, planned: `${wanted.length}` },
  }
}

async function poolAsPlanned(
  systemId: string,
  layOut: Step | undefined,
  locator: string,
  ports: ChangePorts,
): Promise<Evidence[]> {
  const pool = await (await ports.of(systemId, 'pools')).at(locator)
  const banks = await (await ports.of(systemId, 'spreadPools')).banksOf(locator)
  const wanted = layOut?.step === 'lay-out' ? layOut.banks : []
  const usable = layOut?.step === 'lay-out' ? layOut.usableBytes : '0'
  const drivesIn = (list: typeof banks) =>
    list
      .flatMap(bank => [bank.cacheLocator, ...bank.capacityLocators])
      .sort()
      .join()
  return [
    {
      claim: 'The pool is ready and has the planned usable space',
      holds: pool?.isReady === true && `${pool.usableBytes}` === usable,
      measured: { usableBytes: `${pool?.usableBytes ?? 0n}`, plannedBytes: usable },
    },
    {
      claim: 'Its banks hold exactly the chosen drives',
      holds: wanted.length > 0 && drivesIn(banks) === drivesIn(wanted),
      measured: { banks: `${banks.length}`, planned: `${wanted.length}` },
    },
  ]
}

async function restartServicesOn(systemId: string, wanted: readonly string[], ports: ChangePorts): Promise<Evidence> {
  const nodes = await ports.of(systemId, 'nodes')
  const on = await Promise.all(wanted.map(locator => nodes.isRestartServiceOn(locator)))
  return {
    claim: 'The restart service is on in every node',
    holds: on.length > 0 && on.every(Boolean),
    measured: { on: `${on.filter(Boolean).length}`, nodes: `${on.length}` },
  }
}

/** A cluster is born whole: no finding of its nodes stands that nobody has signed for. What is only a note is told. */
async function healthAtBirth({ systemId, driveIds }: Intent, ports: ChangePorts): Promise<Evidence> {
  await ports.records.collect(systemId)
  const estate = await ports.estate()
  const nodeIds = new Set(driveIds.flatMap(id => byId(estate.drives, id)?.nodeId ?? []))
  const open = openFindings(estate, systemId, nodeIds, await ports.now())
  return {
    claim: 'No finding of its nodes stands that nobody has signed for',
    holds: open.length === 0,
    measured: {
      findings: `${open.length}`,
      ...(open.length === 0 ? {} : { found: open.map(each => each.title).join('; ') }),
    },
  }
}
