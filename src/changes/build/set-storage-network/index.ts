import { setStorageNetworkIntent, type SetStorageNetworkIntent as Intent } from '@/core/intents'
import { within } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { probeEvidence } from '../../parts/probeEvidence'
import { plan } from './plan'
import { isAsWanted, runStep, undoStep, type Step } from './steps'

export const setStorageNetwork: ChangeKind<Intent, Step> = {
  ...setStorageNetworkIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  runStep,
  undoStep,
  prove,
  collects: ({ systemId }) => [systemId],
  // An address that is leased is whatever the lease says.
  settles: made =>
    made.steps.flatMap(({ step }) =>
      step.step === 'set'
        ? step.ports.map(({ locator, storage }) => ({
            kind: 'nodePorts' as const,
            of: { systemId: step.systemId, locator },
            fields: storage.origin === 'leased' ? (['mtu'] as const) : (['mtu', 'storage'] as const),
          }))
        : [],
    ),
  reverse: () => undefined,
}

async function prove(intent: Intent, made: Plan<Step>, _: object, ports: ChangePorts): Promise<Evidence[]> {
  const interfaces = await ports.of(intent.systemId, 'interfaces')
  const evidence: Evidence[] = []
  for (const { step } of made.steps) {
    if (step.step !== 'set') continue
    for (const port of step.ports) {
      const now = await interfaces.at(port.locator)
      evidence.push({
        claim: `${port.locator.split('/').at(-1) ?? ''} is set as planned`,
        holds: await isAsWanted(interfaces, port),
        measured: {
          address: now.storage?.address ?? 'none',
          mtu: `${now.mtu}`,
          vlan: `${now.storage?.vlan ?? 'untagged'}`,
        },
      })
    }
  }
  await ports.records.collect(intent.systemId)
  const touched = made.steps.flatMap(({ step }) => (step.step === 'set' ? step.ports.map(port => port.locator) : []))
  const estate = await ports.estate()
  const nodeIds = estate.nodePorts.filter(port => touched.includes(port.locator)).map(port => port.nodeId)
  return [...evidence, ...(await probeEvidence(intent.systemId, ports, nodeIds))]
}
