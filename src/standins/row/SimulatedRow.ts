import { badValue, conflict, notFound, type DriveEntity, type PoolEntity, type SimulatedArray } from '../array'
import type { Entry } from '../fleet'
import type {
  ClusterEntity,
  NodeEntity,
  NodePortEntity,
  StorageInterfaceEntity,
  SwitchEntity,
  SwitchPortEntity,
} from './entities'
import { Wires } from './Wires'

type Collections = {
  readonly nodes: NodeEntity
  readonly nodePorts: NodePortEntity
  readonly switches: SwitchEntity
  readonly switchPorts: SwitchPortEntity
  readonly clusters: ClusterEntity
}

/** A node starts anew when its storage network moves under a restart service that nobody switched off (fleet seconds). */
const restartSeconds = 180

/** A row of bare servers with its switches, managed in one place; its drives, pools and volumes are the array's it is given. */
export class SimulatedRow {
  constructor(
    readonly array: SimulatedArray,
    /** Where a node's own node agent answers. */
    readonly agentUri: (nodeId: string) => string,
  ) {
    array.fileUnits = {
      all: () => this.all('clusters').find(({ isReady }) => isReady)?.nodeIds ?? [],
      downSince: unit => this.#downSince(unit),
    }
  }

  all<K extends keyof Collections>(kind: K): Collections[K][] {
    return this.array.store.all<Collections[K]>(this.#in(kind))
  }

  one<K extends keyof Collections>(kind: K, id: string): Collections[K] {
    const found = this.array.store.one<Collections[K]>(this.#in(kind), id)
    if (found === undefined) throw notFound(`${kind}/${id}`)
    return found
  }

  entry<K extends keyof Collections>(kind: K, value: Collections[K]): Entry {
    return { collection: this.#in(kind), id: value.id, value }
  }

  gone(kind: keyof Collections, id: string): Entry {
    return { collection: this.#in(kind), id, value: null }
  }

  /** Whether a node answers: it has power and is not starting. */
  isAnswering(node: NodeEntity): boolean {
    return node.isUp && (node.restartingUntil === null || node.restartingUntil <= this.array.clock.now())
  }

  nodeOf(drive: DriveEntity): NodeEntity {
    return this.one('nodes', drive.enclosureId)
  }

  /** Whether what is on a drive can be read now: the drive, its node and the cache drive of its bank are all there. */
  isReadable(drive: DriveEntity): boolean {
    if (drive.isFailed || drive.isPulled || !this.isAnswering(this.nodeOf(drive))) return false
    return !this.isBankLost(drive)
  }

  /** Whether the cache drive before it is lost: then its bank is. */
  isBankLost(drive: DriveEntity): boolean {
    if (drive.poolId === null) return false
    const pool = this.array.all('pools').find(each => each.id === drive.poolId)
    const bank = pool?.spread?.banks.find(each => each.capacity.includes(drive.id))
    if (bank === undefined) return false
    const cache = this.array.one('drives', bank.cache)
    return cache.isFailed || cache.isPulled
  }

  setPower(nodeId: string, isUp: boolean): void {
    const node = this.one('nodes', nodeId)
    const downSince = isUp ? null : (node.downSince ?? this.array.clock.now())
    this.array.store.commit([this.entry('nodes', { ...node, isUp, downSince, restartingUntil: null })])
  }

  #downSince(nodeId: string): number | null {
    const node = this.all('nodes').find(each => each.id === nodeId)
    if (node === undefined) return 0
    // A node that starts anew went down when it began to.
    return this.isAnswering(node) ? null : (node.downSince ?? (node.restartingUntil ?? 0) - restartSeconds * 1000)
  }

  /** Starts a node anew, as its reset button does. */
  restart(nodeId: string): void {
    const restartingUntil = this.array.clock.now() + restartSeconds * 1000
    this.array.store.commit([
      this.entry('nodes', { ...this.one('nodes', nodeId), isUp: true, downSince: null, restartingUntil }),
    ])
  }

  setRestartService(nodeId: string, isRestartServiceOn: boolean): void {
    this.array.store.commit([this.entry('nodes', { ...this.answering(nodeId), isRestartServiceOn })])
  }

  /** A node follows the row's time source from now on: what is left is what such sources leave. */
  followTime(nodeId: string): void {
    this.array.store.commit([this.entry('nodes', { ...this.answering(nodeId), clockOffsetSeconds: 0.1 })])
  }

  skewClock(nodeId: string, seconds: number): void {
    this.array.store.commit([this.entry('nodes', { ...this.one('nodes', nodeId), clockOffsetSeconds: seconds })])
  }

  setInterface(
    portId: string,
    wanted: { readonly mtu?: number; readonly storage?: StorageInterfaceEntity | null },
  ): void {
    const port = this.one('nodePorts', portId)
    const node = this.answering(port.nodeId)
    const mtu = wanted.mtu ?? port.mtu
    if (mtu < 1280 || mtu > 9216)
      throw badValue('The interface was not set.', 'Its MTU is 1280 to 9216.', 'Choose another MTU.')
    const storage = wanted.storage === undefined ? port.storage : wanted.storage
    const leased = storage?.origin === 'leased' ? { ...storage, ...this.#lease(port, storage.family) } : storage
    const isOther = JSON.stringify({ mtu, leased }) !== JSON.stringify({ mtu: port.mtu, leased: port.storage })
    this.array.store.commit([
      this.entry('nodePorts', { ...port, mtu, storage: leased }),
      // A storage network that goes away for a moment looks like a fault to the restart service.
      ...(isOther && port.storage !== null ? this.restarted([node]) : []),
    ])
  }

  /** What a restart service does to nodes whose storage network comes up or moves. */
  restarted(nodes: readonly NodeEntity[]): Entry[] {
    const restartingUntil = this.array.clock.now() + restartSeconds * 1000
    return nodes.filter(node => node.isRestartServiceOn).map(node => this.entry('nodes', { ...node, restartingUntil }))
  }

  setSwitchPort(id: string, wanted: { readonly mtu?: number; readonly vlans?: readonly number[] }): void {
    const port = this.one('switchPorts', id)
    const mtu = wanted.mtu ?? port.mtu
    if (mtu < 1280 || mtu > 9216)
      throw badValue('The port was not set.', 'Its MTU is 1280 to 9216.', 'Choose another MTU.')
    this.array.store.commit([this.entry('switchPorts', { ...port, mtu, vlans: wanted.vlans ?? port.vlans })])
  }

  /** The largest packet, up to `mtu`, that goes whole from a node to an address; null where none comes back. */
  passes(fromNodeId: string, address: string, mtu: number): number | null {
    return this.wires().passes(fromNodeId, address, mtu)
  }

  /** Its ports and cables as they are now. */
  wires(): Wires {
    return new Wires({
      nodePorts: this.all('nodePorts'),
      switches: this.all('switches'),
      switchPorts: this.all('switchPorts'),
      isAnswering: nodeId => this.isAnswering(this.one('nodes', nodeId)),
    })
  }

  /** Drives of a pool's banks whose pieces are lost now: failed, pulled, or behind a lost cache drive. */
  lostDrives(pool: PoolEntity): DriveEntity[] {
    const capacity = new Set(pool.spread?.banks.flatMap(bank => bank.capacity))
    return this.array.all('drives').filter(drive => capacity.has(drive.id) && !this.isReadable(drive))
  }

  /** The node, where it answers; else the request is refused. */
  answering(id: string): NodeEntity {
    const node = this.one('nodes', id)
    if (!this.isAnswering(node))
      throw conflict('Nothing was changed.', `${id} does not answer.`, 'Wait until it is up again.')
    return node
  }

  #lease(port: NodePortEntity, family: 'IPv4' | 'IPv6'): { address: string; isReserved: boolean } {
    const number = Number(port.nodeId.replace(/\D+/g, ''))
    const address = family === 'IPv4' ? `10.20.30.${100 + number}` : `fd00:20:30::1:${number.toString(16)}`
    return { address, isReserved: port.hasReservation }
  }

  #in(kind: keyof Collections): string {
    return `${this.array.model.name}/${kind}`
  }
}
