import type { Sequelize } from 'sequelize'
import { hostAgent } from '@/connectors/host'
import { nodeAgent } from '@/connectors/node'
import { redfishSystem } from '@/connectors/redfish'
import type { Host, NodeAgent, StorageSystem } from '@/ports'
import { probeAccess, systemAccess, type SystemAccess } from '@/records/inventory'
import { SystemGone } from './errors'

/** What the loops share: the records, the key to secrets, and a way to every system. */
export class World {
  readonly #systems = new Map<string, { readonly access: string; readonly system: StorageSystem }>()

  constructor(
    readonly database: Sequelize,
    readonly url: string,
    readonly key: Buffer,
    readonly stop: AbortSignal,
  ) {}

  /** The way to a registered system; kept, and made anew when its address or credentials have changed. @throws {SystemGone} */
  async system(id: string): Promise<StorageSystem> {
    const access = await systemAccess({ database: this.database }, this.key, id)
    if (access === undefined) throw new SystemGone()
    const known = this.#systems.get(id)
    const now = JSON.stringify(access)
    if (known?.access === now) return known.system
    const system = this.#reach(access)
    this.#systems.set(id, { access: now, system })
    return system
  }

  async probedSystem(probeId: string): Promise<StorageSystem> {
    const access = await probeAccess({ database: this.database }, this.key, probeId)
    if (access === undefined) throw new SystemGone()
    return this.#reach(access)
  }

  host(agentAddress: string): Host {
    return hostAgent(agentAddress, this.stop)
  }

  node(agentAddress: string): NodeAgent {
    return nodeAgent(agentAddress, this.stop)
  }

  #reach({ address, acceptedFingerprint, userName, password }: SystemAccess): StorageSystem {
    return redfishSystem({ address, acceptedFingerprint }, { userName, password }, this.stop)
  }
}
