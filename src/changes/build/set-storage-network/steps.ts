import type { StorageInterface } from '@/core/estate'
import type { ChangePorts, Interfaces } from '@/ports'
import type { Facts, StepContext } from '../../ChangeKind'
import { switchOnAsFarAsPossible, switchRestartService } from '../../parts/nodes'

type Wanted = Omit<StorageInterface, 'isReserved'>
interface PortStep {
  readonly locator: string
  readonly mtu: number
  readonly storage: Wanted
  readonly before: { readonly mtu: number; readonly storage: StorageInterface | null }
}

export type Step =
  | {
      readonly step: 'pause-restart' | 'resume-restart'
      readonly systemId: string
      readonly nodeLocators: readonly string[]
    }
  | { readonly step: 'set'; readonly systemId: string; readonly ports: readonly PortStep[] }

export async function runStep(step: Step, _: StepContext, ports: ChangePorts): Promise<Facts> {
  const interfaces = await ports.of(step.systemId, 'interfaces')
  const nodes = await ports.of(step.systemId, 'nodes')
  if (step.step !== 'set') {
    await switchRestartService(nodes, step.nodeLocators, step.step === 'resume-restart', ports)
    return {}
  }
  for (const [index, port] of step.ports.entries()) {
    if (!(await isAsWanted(interfaces, port)))
      await interfaces.set(port.locator, { mtu: port.mtu, storage: port.storage })
    await ports.progress((index + 1) / step.ports.length, 'Setting ports')
  }
  return {}
}

export async function isAsWanted(interfaces: Interfaces, { locator, mtu, storage }: PortStep): Promise<boolean> {
  const now = await interfaces.at(locator)
  const own = now.storage
  if (own === null || now.mtu !== mtu || own.vlan !== storage.vlan || own.origin !== storage.origin) return false
  if (storage.origin === 'leased') return own.family === storage.family
  return own.address === storage.address && own.prefixLength === storage.prefixLength
}

export async function undoStep(step: Step, _: StepContext, ports: ChangePorts): Promise<string | undefined> {
  const interfaces = await ports.of(step.systemId, 'interfaces')
  const nodes = await ports.of(step.systemId, 'nodes')
  if (step.step !== 'set')
    return step.step === 'pause-restart' ? switchOnAsFarAsPossible(nodes, step.nodeLocators) : undefined
  for (const { locator, before } of step.ports) {
    if (before.storage === null) await interfaces.clear(locator)
    else await interfaces.set(locator, { mtu: before.mtu, storage: before.storage })
  }
  return undefined
}
