/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleGroup, sampleId, samplePrincipal, sampleShare } from '@/core/estate/testing/samples'
import type { PersonPage } from '@/core/views'
import { shown, wordsOf } from '../testing/browser'
import { GroupsAbove, PersonSentence, PersonShares } from '.'

const page = (more: Partial<PersonPage> = {}): PersonPage => ({
  person: samplePrincipal(),
  groups: [
    sampleGroup({ memberOf: ['staff'], dn: 'cn=studio,dc=example' }),
    sampleGroup({ id: sampleId(93), durableId: 'staff', name: 'staff', number: null }),
  ],
  ...{ directoryName: 'museum', members: [], memberCount: 0, shareCount: 3, supposed: null },
  shares: [
    sampleShare({
      name: 'photos',
      protocols: ['SMBv3_1_1'],
      ownerGid: 3100,
      grants: [{ who: 'studio', name: 'studio', right: 'change' }],
    }),
    sampleShare({ id: sampleId(72), name: 'scans' }),
    sampleShare({
      id: sampleId(73),
      name: 'locked',
      protocols: ['SMBv3_1_1'],
      grants: [{ who: 'me', name: 'Alva', right: 'none' }],
    }),
  ],
  services: [{ id: sampleId(70), name: 'files.example', joinedTo: 'dc=example', addresses: ['10.0.0.1'] }],
  hosts: [
    { name: 'scan-1', addresses: ['10.0.1.7'] },
    { name: 'far-1', addresses: ['192.0.2.9'] },
  ],
  ...more,
})

test('what somebody may with each share is told, over each protocol, with what stands before more', () => {
  const { container } = shown(<PersonShares page={page()} />)
  const words = wordsOf(container)
  expect(words).toContain('photos may change–nothing: every gate lets a write pass')
  expect(words).toMatch(/scans– refused read: mode, uid 20001, other: ---/)
  expect(words).toContain('locked refused–read: share grant, Alva: is refused')
  const { container: said } = shown(<PersonSentence page={page()} />)
  expect(wordsOf(said)).toContain('May change one share, and read no other.')
})

test('groups are told with those through which somebody is in them', () => {
  const { container } = shown(<GroupsAbove page={page()} />)
  expect(wordsOf(container)).toMatch(/studio3100.*staffno gidthrough studio/)
  expect(wordsOf(container)).toContain('20001, 3101')
})

test('a group tells who is in it, that it has no gid, and that it is in a ring', () => {
  const group = sampleGroup({ number: null, memberOf: ['staff'] })
  const ring = page({
    ...{ person: group, memberCount: 61, shares: [] },
    groups: [sampleGroup({ id: sampleId(93), durableId: 'staff', name: 'staff', memberOf: ['studio'] })],
    members: [{ id: sampleId(90), name: 'Quill Holt', account: 'q.holt', sort: 'person', isDisabled: true }],
  })
  const { container } = shown(
    <>
      <PersonSentence page={ring} />
      <PersonShares page={ring} />
    </>,
  )
  const words = wordsOf(container)
  expect(words).toContain('61 members are in it themselves.')
  expect(words).toContain('It has no gid')
  expect(words).toContain('It and staff contain each other')
  expect(words).toContain('Quill Holtq.holtcannot sign in')
  expect(screen.getByRole('link', { name: 'Quill Holt' }).getAttribute('href')).toBe(`/grant/people/${sampleId(90)}`)
})

test('who is gone, locked or without a number is told so', () => {
  const person = samplePrincipal({ isDisabled: true, number: null, goneSince: '2026-10-01T00:00:00.000Z' })
  const { container } = shown(<PersonSentence page={page({ person })} />)
  expect(wordsOf(container)).toMatch(/cannot sign in.*not had it since 2026-10-01.*has no uid/)
})

const would = (supposed: PersonPage['supposed']) => {
  const { container } = shown(
    <>
      <PersonSentence page={page({ supposed })} />
      <PersonShares page={page({ supposed })} />
      <GroupsAbove page={page({ supposed })} />
    </>,
  )
  return wordsOf(container)
}

test('what somebody would lose without a group is told share by share, with the script that makes it so', () => {
  const words = would({ what: 'not in', group: sampleGroup({ dn: 'cn=studio,dc=example' }) })
  expect(words).toContain('One share of 3 would be otherwise. As if Alva Brenn were no longer in studio')
  expect(words).toContain('photos may change → refused')
  expect(words).toContain('dn: cn=studio,dc=example')
  expect(words).toMatch(/delete: member member: uid=a.brenn,dc=example/)
})

test('a group that gives nothing more changes nothing, and is not among those that somebody is in', () => {
  const other = sampleGroup({ id: sampleId(95), durableId: 'other', name: 'others', number: 900 })
  const words = would({ what: 'in', group: other })
  expect(words).toContain('Nothing would be otherwise. As if Alva Brenn were in others')
  expect(words).toContain('add: member')
  expect(words).not.toContain('others900')
})

test('a group by whose gid a mode lets more in gives that over NFS', () => {
  const scanners = sampleGroup({ id: sampleId(95), durableId: 'scanners', name: 'scanners', number: 300 })
  const words = wordsOf(
    shown(<PersonShares page={page({ supposed: { what: 'in', group: scanners }, groups: [scanners] })} />).container,
  )
  expect(words).toMatch(/scans– refused → may change then nothing: every gate/)
})
