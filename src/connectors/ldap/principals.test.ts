import { principalsOf, type Entry } from './principals'

const person = (uid: string, more: object = {}): Entry => ({
  ...{
    dn: `uid=${uid},ou=people,dc=example`,
    objectClass: ['top', 'inetOrgPerson'],
    entryUUID: `u-${uid}`,
    uid,
    cn: uid,
  },
  ...more,
})
const group = (cn: string, member: string | readonly string[], more: object = {}): Entry => ({
  ...{ dn: `cn=${cn},ou=groups,dc=example`, objectClass: ['groupOfNames'], entryUUID: `g-${cn}`, cn, member },
  ...more,
})
const memberOf = (entries: readonly Entry[], durableId: string) =>
  principalsOf(entries).principals.find(each => each.durableId === durableId)?.memberOf

test('members are found by their names in whatever spelling, once each, and groups within groups', () => {
  const entries = [
    person('a'),
    person('c,d', { dn: 'uid=c\\,d,ou=people,dc=example' }),
    group('one', ['UID=A, OU=people ,DC=Example', 'uid=a,ou=people,dc=example', 'uid=c\\2cd,ou=people,dc=example']),
    group('all', 'cn=one,ou=groups,dc=example', {
      objectClass: 'groupOfUniqueNames',
      member: [],
      uniqueMember: 'cn=one,ou=groups,dc=example',
    }),
  ]
  expect([memberOf(entries, 'u-a'), memberOf(entries, 'u-c,d'), memberOf(entries, 'g-one')]).toEqual([
    ['g-one'],
    ['g-one'],
    ['g-all'],
  ])
})

test('a group may name its members by account; whom it names and nobody has is passed over', () => {
  const entries = [
    person('a'),
    group('posix', [], { objectClass: 'posixGroup', memberUid: ['a', 'nobody'], gidNumber: '300' }),
  ]
  expect(memberOf(entries, 'u-a')).toEqual(['g-posix'])
  expect(principalsOf(entries).principals[1]).toMatchObject({ sort: 'group', number: 300, primaryGid: null })
})

test('a name that nobody can keep takes nobody else out of the directory, and its bearer only where it is what they are known by', () => {
  const { principals, skipped } = principalsOf([
    person('x', { displayName: 'Ines\0 Grier' }),
    person('y', { displayName: Buffer.from([0]) }),
    person('z', { uid: 'z\0' }),
    person('v'),
  ])
  expect(principals.map(({ account, name }) => [account, name])).toEqual([
    ['x', 'Ines Grier'],
    ['y', 'y'],
    ['v', 'v'],
  ])
  expect(skipped).toEqual([{ dn: 'uid=z,ou=people,dc=example', why: expect.stringContaining('NUL') }])
})

test('numbers, names of every plane, and whether somebody may sign in are read, attributes in any letters', () => {
  const { principals } = principalsOf([
    person('x', {
      UIDNUMBER: '4294967294',
      gidNumber: ['7', '8'],
      displayName: Buffer.from('標本 𝔖'),
      pwdAccountLockedTime: '000001010000Z',
    }),
    person('y', { uidNumber: '-1', gidNumber: '99999999999', displayName: '' }),
  ])
  expect(principals).toMatchObject([
    { account: 'x', name: '標本 𝔖', number: 4_294_967_294, primaryGid: 7, isDisabled: true },
    { account: 'y', name: 'y', number: null, primaryGid: null, isDisabled: false },
  ])
})

test.each([
  ['without an entryUUID', { entryUUID: [] }],
  ['with a name that is too long', { cn: 'x'.repeat(300) }],
  ['without uid and cn', { uid: [], cn: [] }],
  ['of no kind that is known', { objectClass: ['device'] }],
])('an entry %s is told of, never taken for somebody', (_, more) => {
  const { principals, skipped } = principalsOf([person('a', more), person('b')])
  expect([principals.map(({ account }) => account), skipped.map(({ dn }) => dn)]).toEqual([
    ['b'],
    ['uid=a,ou=people,dc=example'],
  ])
})

test('of two entries with one entryUUID the first is somebody, the other is told of', () => {
  const { principals, skipped } = principalsOf([person('a'), person('b', { entryUUID: 'U-A' })])
  expect([principals.length, skipped]).toEqual([
    1,
    [{ dn: 'uid=b,ou=people,dc=example', why: 'Another entry has its entryUUID.' }],
  ])
})

test('groups that contain each other are told as they stand', () => {
  const entries = [group('a', 'cn=b,ou=groups,dc=example'), group('b', 'cn=a,ou=groups,dc=example')]
  expect([memberOf(entries, 'g-a'), memberOf(entries, 'g-b')]).toEqual([['g-b'], ['g-a']])
})
