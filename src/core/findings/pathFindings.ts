import { countWords } from '../units'
import type { Finding } from './Finding'
import { found } from './found'

/** Ways on which a host reaches what a system shows it, by the controller at whose end each stands. */
export interface HostWays {
  readonly hostId: string
  readonly hostName: string
  /** Of each disk that it sees: how many of its ways are up, by controller; and how many there are. */
  readonly disks: readonly {
    readonly name: string
    readonly up: Readonly<Record<string, number>>
    readonly known: number
  }[]
}

const shown = 4
const named = (names: readonly string[]) =>
  `${names.slice(0, shown).join(', ')}${names.length > shown ? ` and ${names.length - shown} more` : ''}`

/**
 * Hosts that would lose their disks with one controller, or have lost them.
 * @param controllers of the system at which hosts can log in; with one there is nothing to choose
 */
export function pathFindings(
  system: { readonly id: string; readonly name: string },
  controllers: readonly string[],
  hosts: readonly HostWays[],
): Finding[] {
  if (controllers.length < 2) return []
  return hosts.flatMap(host => {
    const lost = host.disks.filter(disk => disk.known > 0 && upOf(disk).length === 0)
    const single = host.disks.filter(disk => upOf(disk).length === 1)
    return [
      ...(lost.length === 0 ? [] : [noPath(system, host, lost)]),
      ...(single.length === 0 ? [] : [oneController(system, host, single, controllers)]),
    ]
  })
}

type System = Parameters<typeof pathFindings>[0]
type Disks = HostWays['disks']

/** The controllers by which a disk is seen. */
const upOf = (disk: Disks[number]) => Object.keys(disk.up).filter(each => (disk.up[each] ?? 0) > 0)

const noPath = (system: System, { hostId, hostName }: HostWays, lost: Disks) =>
  found('no-path', `${system.id}/${hostId}`, 'now', `${hostName} reaches nothing of ${system.name} any more`, {
    evidence: `All ways to ${named(lost.map(({ name }) => name))} are down.`,
    risk: `What runs on ${hostName} waits, or has failed.`,
    remedy: 'Look at the ports of the system and at the network between.',
    offline: 'Look at the cables and lights of its ports and of the switches.',
  })

function oneController(
  system: System,
  { hostId, hostName }: HostWays,
  single: Disks,
  controllers: readonly string[],
): Finding {
  const disks = countWords(single.length, 'disk', 'disks')
  const title = `${hostName} sees ${disks} through one controller of ${system.name} only`
  return found('one-controller', `${system.id}/${hostId}`, 'soon', title, {
    evidence: `${named(single.map(disk => `${disk.name} by ${upOf(disk)[0] ?? ''}`))}; the system has ${controllers.join(', ')}.`,
    risk: `When that controller restarts or fails, ${hostName} loses them.`,
    remedy: `Log ${hostName} in to a port of each controller, with multipathing.`,
    offline: 'Look whether a port of the other controller has no light.',
  })
}
