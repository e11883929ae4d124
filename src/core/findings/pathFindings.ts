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
    const upOf = (disk: HostWays['disks'][number]) => Object.values(disk.up).filter(count => count > 0).length
    const lost = host.disks.filter(disk => disk.known > 0 && upOf(disk) === 0)
    const single = host.disks.filter(disk => upOf(disk) === 1)
    const of = `${system.id}/${host.hostId}`
    return [
      ...(lost.length === 0
        ? []
        : [
            found('no-path', of, 'now', `${host.hostName} reaches nothing of ${system.name} any more`, {
              evidence: `All ways to ${named(lost.map(({ name }) => name))} are down.`,
              risk: `What runs on ${host.hostName} waits, or has failed.`,
              remedy: 'Look at the ports of the system and at the network between.',
              offline: 'Look at the cables and lights of its ports and of the switches.',
            }),
          ]),
      ...(single.length === 0
        ? []
        : [
            found(
              'one-controller',
              of,
              'soon',
              `${host.hostName} sees ${countWords(single.length, 'disk', 'disks')} through one controller of ${system.name} only`,
              {
                evidence: `${named(single.map(disk => `${disk.name} by ${Object.keys(disk.up).find(each => (disk.up[each] ?? 0) > 0) ?? ''}`))}; the system has ${controllers.join(', ')}.`,
                risk: `When that controller restarts or fails, ${host.hostName} loses them.`,
                remedy: `Log ${host.hostName} in to a port of each controller, with multipathing.`,
                offline: 'Look whether a port of the other controller has no light.',
              },
            ),
          ]),
    ]
  })
}
