import { join } from 'node:path'
import type { FastifyInstance } from 'fastify'
import { account, BlockStore, countLoads, extentBytes, growWorkloads, SimulatedArray, work } from './array'
import { NameServer } from './names/NameServer'
import { ClusterPools, nodeAgents, PieceStore, RawDrives, rowView, SimulatedRow } from './row'
import { fleetControl } from './control'
import { bittern, godwit, heron, hostModels } from './demo/models'
import { seedBittern, seedHeron } from './demo/seedFleet'
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

/** Starts the fleet from its folder, or from its seed where the folder is new. */
export async function startFleet(folder: string, ports: FleetPorts, firstRate: number): Promise<Fleet> {
  const store = new Store(folder)
  const clock = new FleetClock(store, firstRate)
  const faults = new Faults()
  const arrays = seededArrays(store, clock, faults, folder)
  const pieces = new PieceStore(join(folder, 'cluster'))
  const rowArray = new SimulatedArray(godwit, store, clock, faults, pieces)
  let agentsPort = 0
  const row = new SimulatedRow(rowArray, id => `http://127.0.0.1:${agentsPort}/${id}`)
  pieces.serve(row)
  const raw = new RawDrives(join(folder, 'sectors'))
  const pools = new ClusterPools(row, pieces, raw, join(folder, 'cluster'))
  const names = new NameServer(store)
  if (store.count('godwit/drives') === 0) seedRow(rowArray, row, raw, names)
  const all = [...arrays, rowArray]
  const { servers, listen, listenEach } = listening()
  const arrayServices = arrays.map(array => [array.model.name, redfishService(array)] as const)
  const godwitService = redfishService(rowArray, { row, pools, view: rowView(row, pieces) })
  const arrayPorts = await listenEach([...arrayServices, ['godwit', godwitService]], ports.arrays)
  agentsPort = await listen(nodeAgents(row, raw), ports.nodes)
  const namesPort = await names.listen(ports.names)
  const outside = new NameServer(store, undefined, true)
  const outsidePort = await outside.listen(ports.outsideNames)
  const people = new DirectoryTree(store)
  if (people.all().length === 0) seedDirectory(people)
  const directory = new DirectoryServer(people, faults)
  const directoryPort = await directory.listen(ports.directory)
  for (const array of all) array.directory = { address: `ldaps://127.0.0.1:${directoryPort}`, tree: people }
  const asked = (names: NameServer, port: number) => ({ names, address: `127.0.0.1:${port}` })
  const ways = new Ways(store, { own: asked(names, namesPort), outside: asked(outside, outsidePort) }, asksOutside)
  const fileServers = new FileServers(all, ways, people)
  const controlled = { clock, faults, arrays: all, row, pools, names, ways }
  const control = await listen(fleetControl(controlled), ports.control)
  const hosts = hostModels.map(model => new SimulatedHost(model, store, all, fileServers))
  const hostPorts = await listenEach(
    hosts.map(host => [host.model.name, hostAgent(host)] as const),
    ports.hosts,
  )
  const desk = new NightDesk()
  const deskPorts = await desk.listen(ports.desk)
  const still = ticking(clock, all, pools, store)
  return {
    ports: {
      control,
      arrays: arrayPorts,
      hosts: hostPorts,
      nodes: agentsPort,
      names: namesPort,
      outsideNames: outsidePort,
      directory: directoryPort,
      desk: deskPorts,
    },
    ...{ clock, faults, arrays: all, row, pools, directory: people, desk },
    async stop() {
      still()
      await Promise.all([
        ...servers.map(server => server.close()),
        names.stop(),
        outside.stop(),
        directory.stop(),
        desk.stop(),
      ])
      store.snapshot()
    },
  }
}

/** Whether a host asks the name server before the border. */
const asksOutside = (from: string) =>
  hostModels.some(({ addresses, asksOutside: isOne }) => isOne === true && addresses.includes(from))

/** The arrays of the fleet, seeded where their folder is new. */
const seededArrays = (store: Store, clock: FleetClock, faults: Faults, folder: string) =>
  [heron, bittern].map(model => {
    const blocks = new BlockStore(join(folder, 'blocks', model.name), Number(extentBytes))
    const array = new SimulatedArray(model, store, clock, faults, blocks)
    if (store.count(`${model.name}/drives`) === 0) (model === heron ? seedHeron : seedBittern)(array)
    return array
  })

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
function ticking(clock: FleetClock, arrays: readonly SimulatedArray[], pools: ClusterPools, store: Store): () => void {
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
  }, accountMilliseconds)
  const snapshots = setInterval(() => store.snapshot(), snapshotMilliseconds)
  return () => {
    clearInterval(ticks)
    clearInterval(accounts)
    clearInterval(snapshots)
  }
}
