import { linuxCommands } from '.'

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
