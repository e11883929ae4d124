import { sampleId } from '../estate/testing/samples'
import { accessFindings, driftFindings, type Drifted } from '.'

const drift = (more: Partial<Drifted> = {}): Drifted => ({
  ...{ objectId: sampleId(1), kind: 'switchPorts', field: 'mtu', name: 'port 7', was: 9216, is: 1500 },
  ...{ at: new Date('2026-11-27T02:00:00Z'), changeId: sampleId(9), title: 'Set port 7' },
  ...{ changeKind: 'set-switch-port', intent: { mtu: 9216 } },
  ...more,
})

test('an object that is otherwise in several ways is one finding, with what it was and who set it', () => {
  const [found, ...others] = driftFindings([drift(), drift({ field: 'vlans', was: [1, 30], is: [1] })])
  expect(others).toEqual([])
  expect(found).toMatchObject({
    key: `drifted/${sampleId(1)}`,
    title: 'port 7 is not as it was set: its MTU, its VLANs',
    draft: { kind: 'set-switch-port', intent: { mtu: 9216 }, href: `/changes/${sampleId(9)}` },
  })
  expect(found?.evidence).toContain('“Set port 7” set it on 2026-11-27 02:00 UTC')
  expect(found?.evidence).toContain('it was 9216, and is 1500')
  expect(found?.evidence).toContain('it was [1,30], and is [1]')
})

test('what is long, or nothing, is told without its values', () => {
  const rules = Array.from({ length: 40 }, (_, index) => ({ client: `10.0.0.${index}`, access: 'rw' }))
  const [long] = driftFindings([
    drift({ kind: 'shares', field: 'rules', name: 'scans', was: rules, is: rules.slice(1) }),
  ])
  expect(long?.evidence).not.toContain('10.0.0.1')
  expect(long?.title).toContain('its export rules')
  const [lifted] = driftFindings([drift({ kind: 'volumes', field: 'limits', was: { bytesPerSecond: 5 }, is: null })])
  expect(lifted?.evidence).toContain('and is nothing')
  expect(driftFindings([])).toEqual([])
})

const apart = (hostName: string, initiator: string) => ({ groupId: 'g', groupName: 'register', hostName, initiator })
test('a host that a system does not let in with its group is told of with the change that mends it; one that is let in with another is too', () => {
  const named = { id: 's', name: 'heron' }
  const found = accessFindings(
    named,
    [apart('r2', 'iqn.2026-01.example:r2'), apart('r2', 'iqn.2026-01.example:r2.2')],
    [apart('desk', 'iqn.2026-01.example:desk')],
  )
  expect(found.map(({ key, title }) => [key, title])).toEqual([
    ['group-lacks/s/g', 'heron does not let r2 see what register sees'],
    ['group-has-others/s/g', 'heron lets desk see what register sees'],
  ])
  expect(found[0]?.evidence).toContain('iqn.2026-01.example:r2, iqn.2026-01.example:r2.2 are not in its group register')
  expect(found[0]?.draft).toMatchObject({ kind: 'align-group', intent: { systemId: 's', hostGroupId: 'g' } })
  expect(found[0]?.draft?.href).toBe('/provision/hosts?draft=align-group&systemId=s&hostGroupId=g')
  expect(accessFindings(named, [], [])).toEqual([])
})
