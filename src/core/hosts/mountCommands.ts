import type { LinuxCommands } from './linuxCommands'
import { fstabField, shellWord } from './shellWord'

export interface MountedShare {
  readonly server: string
  /** As it is exported: `/ct-scans`. */
  readonly path: string
  readonly protocols: readonly string[]
  /** How a host is believed, as the rule for it says. */
  readonly flavour: string
  readonly isReadOnly: boolean
}

/** The way to a share over SMB for a host on which several people sign in, each as themselves. @see mount.cifs(8) */
export function smbCommands({
  server,
  name,
  realm,
}: {
  readonly server: string
  readonly name: string
  readonly realm: string
}): LinuxCommands {
  const from = `//${server}/${name}`
  const at = `/mnt/${name}`
  const options = 'vers=3.1.1,sec=krb5,multiuser,seal'
  const line = [from, at, 'cifs', `${options},_netdev,nofail`, '0', '0'].map(fstabField).join(' ')
  return {
    steps: [
      { words: 'Install what mounts it, once', commands: ['apt-get install cifs-utils keyutils krb5-user'] },
      { words: 'Get a ticket of the directory', commands: [`kinit ${shellWord(`account@${realm.toUpperCase()}`)}`] },
      {
        words: 'Mount it; whoever signs in on the host counts as that account',
        commands: [`mkdir -p ${shellWord(at)}`, `mount -t cifs -o ${options} ${shellWord(from)} ${shellWord(at)}`],
      },
      {
        words: 'Mount it again after a reboot, when the network is there',
        commands: [
          `echo ${shellWord(line)} >> /etc/fstab`,
          'systemctl daemon-reload && systemctl enable remote-fs.target',
        ],
      },
      { words: 'Check it', commands: [`findmnt ${shellWord(at)} && ls -ld ${shellWord(at)}`] },
      { words: 'From a desktop', commands: [encodeURI(`smb://${server}/${name}`), `\\\\${server}\\${name}`] },
    ],
  }
}

const versions: Readonly<Record<string, string>> = { NFSv3: '3', NFSv4_1: '4.1', NFSv4_2: '4.2' }

/**
 * The way from nothing to a share that is there again after a reboot, once the network is. `hard`: what a server that is away for a
 * moment has not answered is asked again, never given up, so that no write is lost in silence.
 * @see nfs(5); systemd.mount(5), `_netdev` and `nofail`
 */
export function mountCommands({ server, path, protocols, flavour, isReadOnly }: MountedShare): LinuxCommands {
  const version = protocols.flatMap(each => versions[each] ?? []).at(-1) ?? '4.2'
  const options = [`vers=${version}`, `sec=${flavour}`, 'hard', ...(isReadOnly ? ['ro'] : [])].join(',')
  const at = `/mnt${path}`
  const [from, to] = [shellWord(`${server}:${path}`), shellWord(at)]
  const line = [`${server}:${path}`, at, 'nfs', `${options},_netdev,nofail`, '0', '0'].map(fstabField).join(' ')
  return {
    steps: [
      { words: 'Install what mounts it, once', commands: ['apt-get install nfs-common'] },
      { words: 'Mount it', commands: [`mkdir -p ${to}`, `mount -t nfs -o ${options} ${from} ${to}`] },
      {
        words: 'Mount it again after a reboot, when the network is there',
        commands: [
          `echo ${shellWord(line)} >> /etc/fstab`,
          'systemctl daemon-reload && systemctl enable remote-fs.target',
        ],
      },
      { words: 'Check it', commands: [`findmnt ${to} && df -h ${to}`] },
      { words: 'From a desktop', commands: [encodeURI(`nfs://${server}${path}`)] },
    ],
  }
}
