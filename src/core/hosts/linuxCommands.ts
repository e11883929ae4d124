import { fstabField, shellWord } from './shellWord'

/** What a Linux host does with a volume that has been mapped to it, in order, as commands that can be copied. */
export interface LinuxCommands {
  readonly steps: readonly { readonly words: string; readonly commands: readonly string[] }[]
}

export interface MappedVolume {
  readonly name: string
  readonly naa: string
  /** Targets of the system, with the addresses at which they listen. */
  readonly targets: readonly { readonly name: string; readonly address: string }[]
}

/**
 * The way from a new mapping to a file system that is there again after a reboot. The disk is named by its WWN, which stays the same
 * on every path and after every reboot, never by /dev/sdX.
 * @see open-iscsi and multipath-tools manuals; systemd.mount(5), `_netdev` and `x-systemd.requires`
 */
export function linuxCommands({ name, naa, targets }: MappedVolume): LinuxCommands {
  const device = shellWord(`/dev/disk/by-id/dm-uuid-mpath-3${naa}`)
  const at = `/srv/${name}`
  const path = shellWord(at)
  const options =
    '_netdev,nofail,x-systemd.requires=iscsid.service,x-systemd.requires=multipathd.service,x-systemd.after=multipathd.service'
  const line = [device, at, 'xfs', options, '0', '0'].map(fstabField).join(' ')
  return {
    steps: [
      {
        words: 'Install the initiator and multipathing once',
        commands: ['apt-get install open-iscsi multipath-tools xfsprogs', 'systemctl enable --now iscsid multipathd'],
      },
      {
        words: 'Log in to every target, now and at every start',
        commands: targets.flatMap(target => [
          `iscsiadm -m discovery -t sendtargets -p ${shellWord(target.address)}`,
          `iscsiadm -m node -T ${shellWord(target.name)} -p ${shellWord(target.address)} --login`,
          `iscsiadm -m node -T ${shellWord(target.name)} -p ${shellWord(target.address)} -o update -n node.startup -v automatic`,
        ]),
      },
      {
        words: 'Find it by its WWN',
        commands: [
          'iscsiadm -m session --rescan',
          'multipath -r',
          `ls -l /dev/disk/by-id/ | grep -i ${shellWord(naa)}`,
        ],
      },
      {
        words: 'Make a file system; this destroys what is on it',
        commands: [`mkfs.xfs -L ${shellWord(name.slice(0, 12))} ${device}`],
      },
      { words: 'Mount it', commands: [`mkdir -p ${path}`, `mount ${device} ${path}`] },
      {
        words: 'Mount it again after a reboot: network first, then the login, then multipathing, then this',
        commands: [
          `echo ${shellWord(line)} >> /etc/fstab`,
          'systemctl enable open-iscsi',
          `systemctl daemon-reload && mount -a && findmnt ${path}`,
        ],
      },
    ],
  }
}
