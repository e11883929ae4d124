import type { Sequelize } from 'sequelize'
import { directoryReader, hostAgent, nodeAgent, protocolNamed, tellerFor } from '@/connectors'
import type { DirectoryReader, Host, NodeAgent, StorageSystem, Teller } from '@/ports'
import { settings } from '@/records'
import type { Directory } from '@/core/estate'
import { systemsAwaited } from '@/records/changes'
import { directoryById } from '@/records/directories'
import { openSecret } from '@/records/secrets'
import { agentSecretId, probeAccess, systemAccess, type Kept, type SystemAccess } from '@/records/inventory'
import { routeById } from '@/records/telling'
import { DirectoryGone, RouteGone, SystemGone } from './errors'

/** How old an answer may be of what changes wait for: less than how often it is asked for. */
const awaitedMilliseconds = 400

/** What the loops share: the records, the key to secrets, and a way to every system. */
export class World {
  /** What this process's last reading of each system has left in the records. */
  readonly kept = new Map<string, Kept>()
  /** When the reading began that the records hold of each system (estate time): what they say is as of then. */
  readonly readAt = new Map<string, Date>()
  /** What was found last of each system that is not as it was set. */
  readonly drift = new Map<string, string>()
  #awaited: { readonly at: number; readonly ids: Promise<ReadonlySet<string>> } | undefined
  readonly #systems = new Map<string, { readonly access: string; readonly system: StorageSystem }>()

  constructor(
    readonly database: Sequelize,
    readonly url: string,
    readonly key: Buffer,
    readonly stop: AbortSignal,
    /** How many times as often it does again what it does again and again: 1, but where tests wait for it; and the same of what it measures. */
    readonly pace = 1,
    readonly meterPace = pace,
  ) {}

  /** Systems of which a change waits for some task: asked once for all that are looked after here. */
  awaited(): Promise<ReadonlySet<string>> {
    if (this.#awaited !== undefined && Date.now() - this.#awaited.at < awaitedMilliseconds / this.pace)
      return this.#awaited.ids
    const ids = systemsAwaited({ database: this.database }).then(found => new Set(found))
    this.#awaited = { at: Date.now(), ids }
    return ids
  }

  /** The way to a registered system; kept, and made anew when its address or credentials have changed. @throws {SystemGone} */
  async system(id: string): Promise<StorageSystem> {
    const access = await systemAccess({ database: this.database }, this.key, id)
    if (access === undefined) {
      await this.#leave(id)
      throw new SystemGone()
    }
    const known = this.#systems.get(id)
    const now = JSON.stringify(access)
    if (known?.access === now) return known.system
    const system = this.#reach(access, access.allowedNetworks)
    // Before anything is waited for: who asks meanwhile gets this way, and makes no other.
    this.#forget(id)
    this.#systems.set(id, { access: now, system })
    await known?.system.signOut()
    return system
  }

  async probedSystem(probeId: string): Promise<StorageSystem> {
    const access = await probeAccess({ database: this.database }, this.key, probeId)
    if (access === undefined) throw new SystemGone()
    return this.#reach(access, await this.#allowedNetworks())
  }

  /** @param secretId of the credential of an agent that is not registered yet; else the one that is kept with the host */
  async host(agentAddress: string, secretId?: string): Promise<Host> {
    const scope = { database: this.database }
    const own = secretId ?? (await agentSecretId(scope, agentAddress))
    const credential = own === undefined ? undefined : await openSecret(scope, this.key, own, 'agent')
    return hostAgent(agentAddress, this.stop, await this.#allowedNetworks(), credential)
  }

  async node(agentAddress: string): Promise<NodeAgent> {
    return nodeAgent(agentAddress, this.stop, await this.#allowedNetworks())
  }

  /** The way by which a route is told. @throws {RouteGone} */
  async teller(routeId: string): Promise<Teller> {
    const found = await routeById({ database: this.database }, this.key, routeId)
    if (found === undefined) throw new RouteGone()
    const { way, address, sender, recipients, userName } = found.route
    return tellerFor(way, {
      ...{ address, sender, recipients, userName },
      secret: found.secret,
      allowedNetworks: await this.#allowedNetworks(),
      ownAddress: process.env['WENDREL_ADDRESS'] ?? 'http://127.0.0.1:4180',
      stop: this.stop,
    })
  }

  /** A directory, and the way to it. @throws {DirectoryGone} */
  async directory(id: string): Promise<{ readonly directory: Directory; readonly reader: DirectoryReader }> {
    const found = await directoryById({ database: this.database }, this.key, id)
    if (found === undefined) throw new DirectoryGone()
    const { address, fingerprint, readAs } = found.directory
    const endpoint = { address, fingerprint, allowedNetworks: await this.#allowedNetworks() }
    const reader = directoryReader(endpoint, { name: readAs, password: found.password }, this.stop)
    return { directory: found.directory, reader }
  }

  /** Ends the sessions that are open at systems. */
  async leave(): Promise<void> {
    await Promise.all([...this.#systems.keys()].map(id => this.#leave(id)))
  }

  async #leave(id: string): Promise<void> {
    const known = this.#systems.get(id)
    this.#forget(id)
    await known?.system.signOut()
  }

  #forget(id: string): void {
    this.#systems.delete(id)
    this.kept.delete(id)
    this.readAt.delete(id)
    this.drift.delete(id)
  }

  async #allowedNetworks(): Promise<string> {
    return (await settings({ database: this.database })).addresses
  }

  #reach(
    { protocol, address, acceptedFingerprint, userName, password, uuid }: SystemAccess,
    allowedNetworks: string,
  ): StorageSystem {
    const endpoint = { address, acceptedFingerprint, allowedNetworks, uuid }
    return protocolNamed(protocol).reach(endpoint, { userName, password }, this.stop)
  }
}
