import { mirrorFindings, pathFindings, type HostWays } from '.'

const heron = { id: 's', name: 'heron' }
const host = (...disks: HostWays['disks'][number][]): HostWays => ({ hostId: 'h', hostName: 'register-1', disks })
const disk = (name: string, a: number, b: number) => ({ name, up: { A: a, B: b }, known: 4 })
const checks = (hosts: readonly HostWays[], controllers = ['A', 'B']) =>
  pathFindings(heron, controllers, hosts).map(({ check, gravity }) => [check, gravity])

test('a host that would lose its disks with one controller is told of, and one that has lost them', () => {
  expect(checks([host(disk('data', 2, 2))])).toEqual([])
  expect(checks([host(disk('data', 2, 0))])).toEqual([['one-controller', 'soon']])
  expect(checks([host(disk('data', 0, 0))])).toEqual([['no-path', 'now']])
  expect(checks([host(disk('data', 0, 0), disk('log', 0, 1))])).toEqual([
    ['no-path', 'now'],
    ['one-controller', 'soon'],
  ])
})

test('nothing is told where there is nothing to choose, or where a host says nothing of its ways', () => {
  expect(checks([host(disk('data', 1, 0))], ['A'])).toEqual([])
  expect(checks([host({ name: 'data', up: {}, known: 0 })])).toEqual([])
})

test('it names the disks, the controller, and how many more there are', () => {
  const [finding] = pathFindings(
    heron,
    ['A', 'B'],
    [host(...Array.from({ length: 6 }, (_, at) => disk(`d${at}`, 1, 0)))],
  )
  expect(finding?.title).toBe('register-1 sees six disks through one controller of heron only')
  expect(finding?.evidence).toBe('d0 by A, d1 by A, d2 by A, d3 by A and 2 more; the system has A, B.')
})

test('a broken mirror names the other system where it is known, and the draft that fills it again', () => {
  const broken = (partnerName: string | null) =>
    mirrorFindings({ name: 'heron' }, [{ volumeId: 'v', name: 'register-data-01', partnerName }])[0]
  expect(broken('curlew')).toMatchObject({
    ...{ key: 'mirror-broken/v', gravity: 'now', title: 'The mirror of register-data-01 on curlew is broken' },
    draft: { kind: 'refill-mirror', href: '/provision?sel=v&draft=refill-mirror' },
  })
  expect(broken(null)?.remedy).toContain('Bring the other system and the line to it back')
  expect(mirrorFindings({ name: 'heron' }, [])).toEqual([])
})
