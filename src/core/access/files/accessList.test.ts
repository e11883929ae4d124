import fc from 'fast-check'
import { anyAcl, anyRequest, anyRoot, anyRules } from '../testing/arbitrary'
import { editsWords, exportTable, fileGates, judgeFile, mayBySmb, mayFile, turningChanges, unreached } from '..'
import { entryWords, isFor, isWho, madeIn, whoWords } from './accessList'
import type { AccessEntry, FileIdentity, FileOwner } from './modeBits'

const entry = (text: string): AccessEntry => {
  const [kind, who = '', may] = text.split(' ')
  return { kind: kind === 'deny' ? 'deny' : 'allow', who, may: may === 'read' || may === 'write' ? may : 'both' }
}
const file = (...entries: readonly string[]): FileOwner => ({
  uid: 1000,
  gid: 300,
  mode: '0777',
  acl: entries.map(entry),
})
const owner: FileIdentity = { uid: 1000, gid: 1000, groups: [] }
const member: FileIdentity = { uid: 7, gid: 7, groups: [300] }
const stranger: FileIdentity = { uid: 8, gid: 8, groups: [] }
const may = (of: FileOwner, who: FileIdentity) =>
  (['read', 'write'] as const).filter(each => judgeFile(of, who, each).allowed).join(' ') || 'nothing'

// Each worked by hand from RFC 8881, 6.2.1: entries in their order, the first that is for somebody and about it decides.
test.each([
  [file('allow OWNER@ both'), 'read write', 'nothing', 'nothing'],
  [file('deny EVERYONE@ write', 'allow OWNER@ both'), 'read', 'nothing', 'nothing'],
  [file('allow OWNER@ both', 'deny EVERYONE@ write', 'allow EVERYONE@ read'), 'read write', 'read', 'read'],
  [file('deny uid:1000 write', 'allow GROUP@ both', 'allow OWNER@ both'), 'read', 'read write', 'nothing'],
  [file('deny gid:300 read', 'allow EVERYONE@ both'), 'read write', 'write', 'read write'],
  [file('allow gid:300 read', 'deny GROUP@ both', 'allow EVERYONE@ write'), 'write', 'read', 'write'],
  // Without a list the mode counts.
  [{ ...file(), mode: '0640' }, 'read write', 'read', 'nothing'],
])('%j lets its owner %s, a member %s, a stranger %s', (of, own, inGroup, other) =>
  expect([may(of, owner), may(of, member), may(of, stranger)]).toEqual([own, inGroup, other]),
)

test('neither a list nor a mode stops uid 0; whom no entry is for is told as such', () => {
  expect(may(file('deny EVERYONE@ both'), { uid: 0, gid: 5, groups: [] })).toBe('read write')
  expect(judgeFile(file('allow OWNER@ both'), stranger, 'read')).toEqual({
    ...{ allowed: false, decidedBy: 'acl', modeClass: 'other', entryIndex: null },
  })
})

test.each([
  ['OWNER@', true],
  ['uid:0', true],
  ['gid:4294967294', true],
  ['gid:4294967295', false],
  ['uid:', false],
  ['uid:-1', false],
  ['owner@', false],
  ['uid:1e3', false],
  ["uid:1'; drop", false],
])('%s names somebody: %s', (who, is) => {
  expect(isWho(who)).toBe(is)
  if (!is) expect(isFor({ who }, { uid: 1, gid: 1, groups: [] }, file())).toBe(false)
})

test('entries say in words whom they are for and what they do', () =>
  expect(
    ['allow OWNER@ both', 'deny gid:300 write', 'deny EVERYONE@ both']
      .map(entry)
      .map(each => `${whoWords(each.who)} ${entryWords(each)}`),
  ).toEqual(['the owner may read and write', 'gid 300 may not write', 'everyone may not read nor write']))

test('an entry that is said to decide for nobody does not: without it nothing is otherwise', () => {
  expect(unreached(['allow EVERYONE@ both', 'deny OWNER@ write'].map(entry))).toEqual([1])
  expect(unreached(['allow EVERYONE@ read', 'deny OWNER@ both', 'deny OWNER@ write'].map(entry))).toEqual([2])
  fc.assert(
    fc.property(anyAcl, anyRequest, anyRoot, (acl, asked, root) => {
      const never = new Set(unreached(acl))
      const left = acl.filter((_, index) => !never.has(index))
      const judged = (list: readonly AccessEntry[]) =>
        // Two of an empty list and a full one are told apart: then the mode would count.
        judgeFile({ ...root, acl: [...list, entry('deny uid:77 both')] }, asked, asked.operation).allowed
      expect(judged(left)).toBe(judged(acl))
    }),
  )
})

test('over NFS and over SMB the same list decides, behind rule and grant', () => {
  fc.assert(
    fc.property(anyAcl, anyRequest, anyRoot, (acl, asked, root) => {
      const of = { ...root, acl }
      const rules = [{ client: '*', access: 'rw', squash: 'none', anonUid: 1, anonGid: 1, flavours: ['sys'] }] as const
      const somebody = { ...asked, durableId: 'me', groupIds: [], isDisabled: false }
      const grants = [{ who: 'me', name: 'me', right: 'full' as const }]
      const over = mayFile(exportTable(rules), asked, of)
      const smb = mayBySmb(grants, somebody, asked.operation, of)
      expect([over.allowed, over.decidedBy, over.entryIndex]).toEqual([smb.allowed, smb.decidedBy, smb.entryIndex])
    }),
  )
})

test('the gate says which entry decided, and the smallest way to turn it is one entry more', () => {
  const rights = {
    rules: [
      { client: '*', access: 'rw', squash: 'root', anonUid: 65_534, anonGid: 65_534, flavours: ['sys'] },
    ] as const,
    root: file('deny gid:300 write', 'allow EVERYONE@ both'),
  }
  const request = {
    ...{ clientAddress: '10.0.0.9', clientName: null, flavour: 'sys' as const, operation: 'write' as const },
    ...member,
  }
  const state = { name: 'scans', addresses: ['10.0.0.1'], freeBytes: null }
  expect(fileGates(rights, state, request).gates.at(-1)).toEqual({
    ...{ gate: 'acl', label: 'Access list', state: 'stops' },
    why: 'uid 7: entry 1, gid 300: may not write',
  })
  expect(turningChanges(rights, request).map(({ edits }) => editsWords(edits, rights.rules))).toEqual([
    'Add an entry to its access list: uid 7 may write',
    'Take entry 1 of its access list away',
  ])
})

test('what is made in a directory has the entries that are handed down, in their order; without any its mode counts', () => {
  const given = [entry('allow OWNER@ both'), entry('deny gid:300 read'), entry('allow EVERYONE@ read')]
  const below = given.map((each, index) => ({ ...each, isInherited: index > 0 }))
  const made = madeIn({ ...file(), acl: below }, owner)
  expect(made).toEqual({ uid: 1000, gid: 1000, mode: '0644', acl: below.slice(1) })
  expect([owner, member, stranger].map(each => may(made, each))).toEqual(['read', 'nothing', 'read'])
  const plain = madeIn({ ...file(), mode: '2770', acl: given }, stranger)
  expect(plain).toEqual({ uid: 8, gid: 300, mode: '0644', acl: [] })
  expect([stranger, member].map(each => may(plain, each))).toEqual(['read write', 'read'])
})

test('a member of a group that an entry lets may be the smallest change', () => {
  const rules = [{ client: '*', access: 'rw', squash: 'none', anonUid: 1, anonGid: 1, flavours: ['sys'] }] as const
  const request = { clientAddress: '10.0.0.9', clientName: null, flavour: 'sys' as const, ...stranger }
  const root = file('allow gid:55 read', 'allow GROUP@ both')
  const ways = turningChanges({ rules, root }, { ...request, operation: 'read' })
  expect(ways.flatMap(({ edits }) => edits.flatMap(each => (each.of === 'member' ? [each.gid] : [])))).toEqual([
    55, 300,
  ])
  // Rules of every kind, and lists: whatever is offered turns the answer.
  fc.assert(
    fc.property(anyRules, anyRequest, anyRoot, (all, asked, of) => {
      const before = mayFile(exportTable(all), asked, of).allowed
      for (const { edits, rights } of turningChanges({ rules: all, root: of }, asked)) {
        const groups = [...asked.groups, ...edits.flatMap(each => (each.of === 'member' ? [each.gid] : []))]
        expect(mayFile(exportTable(rights.rules), { ...asked, groups }, rights.root).allowed).toBe(!before)
      }
    }),
  )
})
