import { group } from 'd3-array'
import { pathFindings, type Finding, type HostWays as Ways } from '@/core/findings'
import type { HostDevice } from '@/ports'
import {
  controllersByTarget,
  disksNamed,
  hostsToLookAt,
  keepFindings,
  keepHostPaths,
  keepPathsOf,
  keptHostPaths,
  systemName,
} from '@/records/inventory'
import type { World } from '../World'
import { Turns } from './Turns'

/** Hosts that are asked at once. */
const atOnce = 4
/** Of hosts that did not answer when they were asked last, so many are asked again each time. */
const silentAtOnce = atOnce

/** A disk as a host sees it. */
type Seen = Pick<HostDevice, 'naa' | 'paths'>

type Looked = Awaited<ReturnType<typeof hostsToLookAt>>[number]

/** Asks the hosts of one system by which ways they see its disks. Nothing is changed on them: they say what they have. */
export class HostWays {
  /** What was kept last of each host: what stands still is not written again. */
  readonly #kept = new Map<string, string>()
  /** What was found by what each host said last: it stands until the host says something else. */
  readonly #found = new Map<string, readonly Finding[]>()
  /** Of which it is known what they said last, to this process or one before it. */
  readonly #heard = new Set<string>()
  readonly #turns = new Turns(silentAtOnce)
  /** Of which hosts ways were kept last. */
  #looked: string | undefined
  /** Findings stand, also those of a process before this one: they may have to be cleared. */
  #hasFound = true

  constructor(
    private readonly world: World,
    private readonly systemId: string,
  ) {}

  async keep(): Promise<void> {
    const { world, systemId } = this
    const scope = { database: world.database }
    const hosts = await hostsToLookAt(scope, systemId)
    await this.#forgetOthers(hosts.map(({ id }) => id))
    if (hosts.length === 0 && !this.#hasFound) return
    const controllerOf = await controllersByTarget(scope, systemId)
    const named = { id: systemId, name: await systemName(scope, systemId) }
    const controllers = [...new Set(controllerOf.values())].sort((a, b) => a.localeCompare(b))
    const findingsOf = (ways: Ways) => pathFindings(named, controllers, [ways])
    const byId = new Map(hosts.map(host => [host.id, host]))
    const asked = this.#turns.next([...byId.keys()]).flatMap(id => byId.get(id) ?? [])
    const failed: unknown[] = []
    for (let from = 0; from < asked.length; from += atOnce) {
      const ways = await Promise.allSettled(
        asked.slice(from, from + atOnce).map(host => this.#hear(host, controllerOf, findingsOf)),
      )
      // What one host says must not keep anybody from hearing of the others; it is told once they are looked at.
      for (const each of ways) if (each.status === 'rejected') failed.push(each.reason)
    }
    const findings = hosts.flatMap(({ id }) => this.#found.get(id) ?? [])
    await keepFindings(scope, systemId, 'hosts', findings)
    this.#hasFound = findings.length > 0
    if (failed.length > 0) throw failed[0]
  }

  async #hear(
    host: Looked,
    controllerOf: ReadonlyMap<string, string>,
    findingsOf: (ways: Ways) => readonly Finding[],
  ): Promise<void> {
    const scope = { database: this.world.database }
    const devices = await this.#devices(host.agentAddress)
    this.#turns.asked(host.id, devices !== undefined)
    // What one that is silent has told a process before this one stands in the records.
    if (devices === undefined && this.#heard.has(host.id)) return
    const told: readonly Seen[] = devices ?? (await keptHostPaths(scope, host.id, this.systemId))
    const disks = await disksNamed(
      scope,
      this.systemId,
      told.map(({ naa }) => naa),
    )
    if (devices !== undefined) await this.#note(host.id, shownOf(devices, disks))
    const ways = shownOf(told, disks).map(each => waysTo(each, disks, controllerOf))
    const found = findingsOf({ hostId: host.id, hostName: host.name, disks: ways })
    this.#heard.add(host.id)
    if (found.length > 0) this.#found.set(host.id, found)
    else this.#found.delete(host.id)
  }

  /** Hosts to which it shows nothing any more have no ways to it. */
  async #forgetOthers(ids: readonly string[]): Promise<void> {
    const looked = ids.join(' ')
    if (this.#looked === looked) return
    await keepPathsOf({ database: this.world.database }, this.systemId, ids)
    const shown = new Set(ids)
    for (const known of [this.#kept, this.#found, this.#heard])
      for (const id of known.keys()) if (!shown.has(id)) known.delete(id)
    this.#looked = looked
  }

  /** What a host sees; undefined where it does not answer. */
  async #devices(agentAddress: string): Promise<readonly HostDevice[] | undefined> {
    try {
      return await (await this.world.host(agentAddress)).devices()
    } catch (cause) {
      if (this.world.stop.aborted) throw cause
      return undefined
    }
  }

  async #note(hostId: string, devices: readonly HostDevice[]): Promise<void> {
    const now = JSON.stringify(devices.map(({ naa, lun, paths }) => [naa, lun, paths]))
    if (this.#kept.get(hostId) === now) return
    await keepHostPaths({ database: this.world.database }, hostId, this.systemId, devices)
    this.#kept.set(hostId, now)
  }
}

/** Of what a host sees, the disks of a system: of one that it names twice the first. */
const shownOf = <Device extends Pick<HostDevice, 'naa'>>(
  devices: readonly Device[],
  disks: ReadonlyMap<string, string>,
): Device[] =>
  [...group(devices, ({ naa }) => naa).values()].flatMap(([first]) =>
    first !== undefined && disks.has(first.naa) ? [first] : [],
  )

function waysTo(
  { naa, paths = [] }: Seen,
  disks: ReadonlyMap<string, string>,
  controllerOf: ReadonlyMap<string, string>,
): Ways['disks'][number] {
  const up: Record<string, number> = {}
  for (const { target, isUp } of paths) {
    const controller = controllerOf.get(target)
    if (controller !== undefined && isUp) up[controller] = (up[controller] ?? 0) + 1
  }
  return { name: disks.get(naa) ?? naa, up, known: paths.length }
}
