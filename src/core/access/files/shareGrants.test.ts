import fc from 'fast-check'
import { smbGates } from './gates'
import { smbRight } from './bestRight'
import {
  allGrants,
  decidingGrant,
  everybody,
  mayBySmb,
  type GrantedRight,
  type ShareGrant,
  type SignedIn,
} from './shareGrants'
import { smbEditsWords, smbTurnings } from './smbTurning'

const me: SignedIn = {
  ...{ durableId: 'me', uid: 20_001, gid: 3101, groups: [3101, 3100] },
  ...{ groupIds: ['photographers', 'studio'], isDisabled: false },
}
const grant = (who: string, right: GrantedRight): ShareGrant => ({ who, name: who, right })
const root = { uid: 0, gid: 3100, mode: '2770' }
const decided = (...grants: readonly ShareGrant[]) => {
  const { allowed, decidedBy, grantIndex } = mayBySmb(grants, me, 'write', root)
  return [allowed, decidedBy, grantIndex]
}

test('a refusal stands before all; else the widest counts; who has none is refused', () => {
  expect(decided(grant('studio', 'change'))).toEqual([true, 'mode-bits', 0])
  expect(decided(grant('studio', 'read'), grant('photographers', 'change'))).toEqual([true, 'mode-bits', 1])
  expect(decided(grant('studio', 'full'), grant('photographers', 'none'))).toEqual([false, 'share-grant', 1])
  expect(decided(grant(everybody, 'read'))).toEqual([false, 'share-grant', 0])
  expect(decided(grant('retouchers', 'full'))).toEqual([false, 'share-grant', null])
  // Of equals the first.
  expect(decidingGrant([grant('studio', 'read'), grant('me', 'read')], me)).toBe(0)
})

test('a grant is no way around the mode, and an account that is locked opens nothing', () => {
  expect(mayBySmb([grant('studio', 'full')], me, 'write', { ...root, mode: '2750' })).toMatchObject({
    ...{ allowed: false, decidedBy: 'mode-bits', modeClass: 'group' },
  })
  expect(mayBySmb([grant('studio', 'full')], { ...me, isDisabled: true }, 'read', root)).toMatchObject({
    ...{ allowed: false, decidedBy: 'authentication' },
  })
})

test('every gate is told in order, those behind the first that stops by what they would do', () => {
  const state = { name: 'photos', protocols: ['SMBv3_1_1'], joinedTo: 'dc=a', addresses: ['10.0.0.1'], freeBytes: 0n }
  const { allowed, gates } = smbGates({ grants: [grant('studio', 'read')], root }, state, me, 'write')
  expect([allowed, gates.map(({ gate, state: now }) => `${gate}: ${now}`)]).toEqual([
    false,
    ['service: passes', 'authentication: passes', 'share-grant: stops', 'mode-bits: would pass', 'room: would stop'],
  ])
  const elsewhere = { ...state, protocols: ['NFSv4_2'], joinedTo: null }
  expect(smbGates({ grants: [], root }, elsewhere, me, 'read').gates.map(({ state: now }) => now)).toEqual([
    ...['passes', 'stops', 'would stop', 'would stop', 'would pass'],
  ])
})

test('grants of the whole service count beside those of the share; a draft about the share turns only what is its own', () => {
  const rights = (grants: readonly ShareGrant[], serviceGrants: readonly ShareGrant[]) => ({
    grants,
    serviceGrants,
    root,
  })
  const may = (...both: Parameters<typeof rights>) => mayBySmb(allGrants(rights(...both)), me, 'write', root).allowed
  expect(may([], [grant('studio', 'change')])).toBe(true)
  expect(may([grant('me', 'full')], [grant('studio', 'none')])).toBe(false)
  expect(may([grant('me', 'none')], [grant('studio', 'full')])).toBe(false)
  const state = { name: 'photos', addresses: ['10.0.0.1'], freeBytes: 1n }
  const [, , byService] = smbGates(rights([], [grant('studio', 'read')]), state, me, 'write').gates
  expect(byService).toMatchObject({ state: 'stops', why: 'studio: only reads, by its whole service' })
  const ways = (...both: Parameters<typeof rights>) =>
    smbTurnings(rights(...both), me, 'write', 'A. Brenn').map(({ edits }) => smbEditsWords(edits, both[0]))
  expect(ways([], [grant('studio', 'read')])).toEqual(['Grant A. Brenn: change'])
  expect(ways([], [grant('studio', 'none')])).toEqual([])
  expect(ways([], [grant('me', 'full')])).toEqual(expect.arrayContaining(['Refuse A. Brenn']))
  expect(smbRight(rights([], [grant('studio', 'read')]), me)).toBe('read')
})

test('the smallest change is found, that for one alone before that for a group', () => {
  const ways = (grants: readonly ShareGrant[], operation: 'read' | 'write', mode = '2770') =>
    smbTurnings({ grants, root: { ...root, mode } }, me, operation, 'A. Brenn').map(({ edits }) =>
      smbEditsWords(edits, grants),
    )
  expect(ways([grant('studio', 'read')], 'write')).toEqual([
    'Grant A. Brenn: change',
    'Set the grant of studio to change',
  ])
  expect(ways([grant('studio', 'change')], 'write')).toContain('Refuse A. Brenn')
  // Behind a refusal no grant helps: it is taken away, and where that was all, something is granted.
  expect(ways([grant('studio', 'none'), grant(everybody, 'change')], 'write')).toEqual([
    'Set the grant of studio to change',
    'Take the grant of studio away',
  ])
  expect(ways([grant('studio', 'read')], 'write', '2750')).toContain(
    'Grant A. Brenn: change; set the mode of its root to 2770',
  )
  expect(smbTurnings({ grants: [], root }, { ...me, isDisabled: true }, 'read', 'A')).toEqual([])
})

const rights = fc.constantFrom<GrantedRight>('none', 'read', 'change', 'full')
const anyGrants = fc.uniqueArray(
  fc.record({ who: fc.constantFrom('me', 'studio', 'photographers', 'retouchers', everybody), right: rights }),
  { selector: ({ who }) => who, maxLength: 5 },
)
const anyMode = fc.integer({ min: 0, max: 0o777 }).map(mode => mode.toString(8).padStart(4, '0'))

test('each way that is told turns the answer, and who is not locked has one', () => {
  fc.assert(
    fc.property(anyGrants, anyMode, fc.constantFrom('read' as const, 'write' as const), (grants, mode, operation) => {
      const own = { grants: grants.map(({ who, right }) => grant(who, right)), root: { ...root, mode } }
      const before = mayBySmb(own.grants, me, operation, own.root).allowed
      const ways = smbTurnings(own, me, operation, 'me')
      expect(ways.length).toBeGreaterThan(0)
      for (const { edits, rights: after } of ways) {
        const joined = edits.flatMap(edit => (edit.of === 'smb-member' ? [edit.gid] : []))
        const as = { ...me, groups: [...me.groups, ...joined] }
        expect(mayBySmb(after.grants, as, operation, after.root).allowed).toBe(!before)
      }
    }),
  )
})
