import { join } from 'node:path'
import type { FastifyInstance } from 'fastify'
import { account, BlockStore, countLoads, extentBytes, growWorkloads, SimulatedArray, work } from './array'
import { NameServer } from './names/NameServer'
import { ClusterPools, nodeAgents, PieceStore, RawDrives, rowView, SimulatedRow } from './row'
import { fleetControl } from './control'
import { bittern, curlew, godwit, heron, hostModels } from './demo/models'
import { seedAllFlash, seedBittern } from './demo/seedFleet'
import { seedDirectory } from './demo/seedDirectory'
import { seedRow } from './demo/seedRow'
import { NightDesk, type DeskPorts } from './desk'
import { Faults, FleetClock, Store } from './fleet'
import { FileServers, Ways } from './files'
import { hostAgent, SimulatedHost } from './host'
import { DirectoryServer, DirectoryTree } from './people'
import { redfishService } from './redfish'

/** Where each stand-in listens, on loopback; 0 lets the system choose. */
export interface FleetPorts {
  readonly control: number
  readonly arrays: Readonly<Record<string, number>>
  readonly hosts: Readonly<Record<string, number>>
  /** The agents of the row's nodes, all on one port. */
  readonly nodes: number
  /** The name server, over UDP and TCP. */
  readonly names: number
  /** The one before the border, which is told other addresses. */
  readonly outsideNames: number
  /** The directory, over LDAP within TLS. */
  readonly directory: number
  /** Of the night desk, that is told by webhook, mail and syslog. */
  readonly desk: DeskPorts
}

/** Wherever the system finds room. */
export const anyPorts: FleetPorts = {
  control: 0,
  arrays: {},
  hosts: {},
  nodes: 0,
  names: 0,
  outsideNames: 0,
  directory: 0,
  desk: { http: 0, smtp: 0, syslog: 0 },
}

export interface Fleet {
  readonly ports: FleetPorts
  readonly clock: FleetClock
  readonly faults: Faults
  readonly arrays: readonly SimulatedArray[]
  readonly row: SimulatedRow
  readonly pools: ClusterPools
  readonly directory: DirectoryTree
  readonly desk: NightDesk
  stop(): Promise<void>
}

const tickMilliseconds = 250
const snapshotMilliseconds = 60_000
const accountMilliseconds = 5000

/**
 * Starts the fleet from its folder, or from its seed where the folder is new.
 * @param accountEvery how often its arrays account what their loads have written and asked for (milliseconds)
 */
export async function startFleet(
  folder: string,
  ports: FleetPorts,
  firstRate: number,
  accountEvery = accountMilliseconds,
): Promise<Fleet> {
  const store = new Store(folder)
  const clock = new FleetClock(store, firstRate)
  const faults = new Faults()
  const arrays = seededArrays(store, clock, faults, folder)
  const called = new NameServer(store)
  const nodes = rowOf(store, clock, faults, folder, called)
  const { row, rowArray, raw, pools, pieces } = nodes
  const all = [...arrays, rowArray]
  const { servers, listen, listenEach } = listening()
  const arrayServices = arrays.map(array => [array.model.name, redfishService(array)] as const)
  const godwitService = redfishService(rowArray, { row, pools, view: rowView(row, pieces) })
  const arrayPorts = await listenEach([...arrayServices, ['godwit', godwitService]], ports.arrays)
  const agentsPort = await listen(nodeAgents(row, raw), ports.nodes)
  nodes.agentsListen(agentsPort)
  const names = await namesOf(store, called, ports)
  const people = await peopleOf(store, faults, all, ports.directory)
  const fileServers = new FileServers(all, names.ways, people.tree)
  const controlled = { clock, faults, arrays: all, row, pools, names: called, ways: names.ways }
  const control = await listen(fleetControl(controlled), ports.control)
  const agents = hostModels.map(
    model => [model.name, hostAgent(new SimulatedHost(model, store, all, fileServers))] as const,
  )
  const hostPorts = await listenEach(agents, ports.hosts)
  const desk = new NightDesk()
  const deskPorts = await desk.listen(ports.desk)
  const still = ticking(clock, all, pools, store, accountEvery)
  const own = { control, arrays: arrayPorts, hosts: hostPorts, nodes: agentsPort }
  return {
    ports: { ...own, ...names.ports, directory: people.port, desk: deskPorts },
    ...{ clock, faults, arrays: all, row, pools, directory: people.tree, desk },
    async stop() {
      still()
      await Promise.all([...servers.map(server => server.close()), names.stop(), people.stop(), desk.stop()])
      store.snapshot()
    },
  }
}

/** The row of nodes with its drives and pools; its agents are named once it is known where they listen. */
function rowOf(store: Store, clock: FleetClock, faults: Faults, folder: string, names: NameServer) {
  const pieces = new PieceStore(join(folder, 'cluster'))
  const rowArray = new SimulatedArray(godwit, store, clock, faults, pieces)
  let agentsPort = 0
  const row = new SimulatedRow(rowArray, id => `http://127.0.0.1:${agentsPort}/${id}`)
  pieces.serve(row)
  const raw = new RawDrives(join(folder, 'sectors'))
  const pools = new ClusterPools(row, pieces, raw, join(folder, 'cluster'))
  if (store.count('godwit/drives') === 0) seedRow(rowArray, row, raw, names)
  const agentsListen = (port: number) => (agentsPort = port)
  return { row, rowArray, raw, pools, pieces, agentsListen }
}

/** The two name servers, and the ways by which hosts get through to what they name. */
async function namesOf(store: Store, names: NameServer, wanted: FleetPorts) {
  const outside = new NameServer(store, undefined, true)
  const ports = { names: await names.listen(wanted.names), outsideNames: await outside.listen(wanted.outsideNames) }
  const asked = (one: NameServer, port: number) => ({ names: one, address: `127.0.0.1:${port}` })
  const both = { own: asked(names, ports.names), outside: asked(outside, ports.outsideNames) }
  const stop = () => Promise.all([names.stop(), outside.stop()])
  return { ports, ways: new Ways(store, both, asksOutside), stop }
}

/** The directory of people, which every system asks. */
async function peopleOf(store: Store, faults: Faults, arrays: readonly SimulatedArray[], wanted: number) {
  const tree = new DirectoryTree(store)
  if (tree.all().length === 0) seedDirectory(tree)
  const server = new DirectoryServer(tree, faults)
  const port = await server.listen(wanted)
  for (const array of arrays) array.directory = { address: `ldaps://127.0.0.1:${port}`, tree }
  return { tree, port, stop: () => server.stop() }
}

/** Whether a host asks the name server before the border. */
const asksOutside = (from: string) =>
  hostModels.some(({ addresses, asksOutside: isOne }) => isOne === true && addresses.includes(from))

/** The arrays of the fleet, seeded where their folder is new. */
function seededArrays(store: Store, clock: FleetClock, faults: Faults, folder: string): SimulatedArray[] {
  const seeded = [heron, bittern, curlew].map(model => {
    const blocks = new BlockStore(join(folder, 'blocks', model.name), Number(extentBytes))
    const array = new SimulatedArray(model, store, clock, faults, blocks)
    if (store.count(`${model.name}/drives`) === 0) (model === bittern ? seedBittern : seedAllFlash)(array)
    return array
  })
  const paired = seeded.filter(({ model }) => model === heron || model === curlew)
  for (const array of paired) array.partners = paired.filter(each => each !== array)
  return seeded
}

/** Servers on loopback, each on the port that was asked for or one that the system chooses. */
function listening() {
  const servers: FastifyInstance[] = []
  const listen = async (server: FastifyInstance, port: number) => {
    servers.push(server)
    await server.listen({ host: '127.0.0.1', port })
    const address = server.server.address()
    return typeof address === 'object' && address !== null ? address.port : port
  }
  const listenEach = async (
    named: readonly (readonly [string, FastifyInstance])[],
    wanted: Readonly<Record<string, number>>,
  ) => {
    const ports: Record<string, number> = {}
    for (const [name, server] of named) ports[name] = await listen(server, wanted[name] ?? 0)
    return ports
  }
  return { servers, listen, listenEach }
}

/** Lets the fleet work as its clock goes. @returns what ends that */
function ticking(
  clock: FleetClock,
  arrays: readonly SimulatedArray[],
  pools: ClusterPools,
  store: Store,
  accountEvery: number,
): () => void {
  let last = clock.now()
  const ticks = setInterval(() => {
    const now = clock.now()
    const seconds = (now - last) / 1000
    last = now
    if (seconds <= 0) return
    arrays.forEach(array => work(array, seconds))
    pools.tick()
  }, tickMilliseconds)
  const accounts = setInterval(() => {
    arrays.forEach(growWorkloads)
    arrays.forEach(countLoads)
    arrays.forEach(account)
  }, accountEvery)
  const snapshots = setInterval(() => store.snapshot(), snapshotMilliseconds)
  return () => {
    clearInterval(ticks)
    clearInterval(accounts)
    clearInterval(snapshots)
  }
}
