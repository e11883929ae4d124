import { linuxCommands, mountCommands } from '.'

test('the disk is named by its WWN throughout, and mounting waits for login and multipathing', () => {
  const { steps } = linuxCommands({
    name: 'register-data-01',
    naa: '6abc',
    targets: [
      { name: 'iqn.x:a', address: '10.0.0.1' },
      { name: 'iqn.x:b', address: '10.0.0.2' },
    ],
  })
  const all = steps.flatMap(step => step.commands)
  expect(all.filter(command => command.includes('--login'))).toHaveLength(2)
  expect(all.some(command => /\/dev\/sd/.test(command))).toBe(false)
  expect(all.findIndex(command => command.startsWith('mkfs'))).toBeLessThan(
    all.findIndex(command => command.startsWith('mount ')),
  )
  expect(all.find(command => command.includes('/etc/fstab'))).toMatch(/_netdev.*requires=iscsid.*after=multipathd/)
  expect(
    all.filter(command => /mkfs|mount \/dev|fstab/.test(command)).every(command => command.includes('mpath-36abc')),
  ).toBe(true)
})

const hostile = `x'; rm -rf / #$(id) \`id\``

test('names that systems state are words to a shell, never commands', () => {
  const volume = linuxCommands({ name: hostile, naa: '6abc', targets: [{ name: hostile, address: hostile }] })
  const share = mountCommands({
    server: 'files.example',
    path: `/${hostile}`,
    protocols: [],
    flavour: 'sys',
    isReadOnly: true,
  })
  for (const command of [...volume.steps, ...share.steps.slice(0, -1)].flatMap(({ commands }) => commands)) {
    // What stands outside of single quotes is all that a shell looks into.
    const bare = command.replaceAll(`'\\''`, '').replace(/'[^']*'/g, '')
    expect(bare).not.toMatch(/rm -rf|\$\(|`|#/)
  }
})

test('a share is mounted by its name, waits for the network and is never given up', () => {
  const all = mountCommands({
    server: 'files.example',
    path: '/scans',
    protocols: ['NFSv3', 'NFSv4_1'],
    flavour: 'sys',
    isReadOnly: true,
  })
  const commands = all.steps.flatMap(step => step.commands)
  expect(commands).toContain('mount -t nfs -o vers=4.1,sec=sys,hard,ro files.example:/scans /mnt/scans')
  expect(commands).toContain(
    "echo 'files.example:/scans /mnt/scans nfs vers=4.1,sec=sys,hard,ro,_netdev,nofail 0 0' >> /etc/fstab",
  )
  const spaced = mountCommands({ server: 's', path: '/a b', protocols: [], flavour: 'sys', isReadOnly: false })
  expect(spaced.steps[2]?.commands[0]).toContain('s:/a\\040b /mnt/a\\040b nfs')
})
