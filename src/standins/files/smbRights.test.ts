import fc from 'fast-check'
import { mayBySmb } from '@/core/access'
import type { ShareGrantEntity } from '../array'
import { mayTouchBySmb } from './smbRights'

const account = fc.record({
  uid: fc.integer({ min: 0, max: 4 }),
  gid: fc.integer({ min: 0, max: 4 }),
  gids: fc.array(fc.integer({ min: 0, max: 4 }), { maxLength: 3 }),
  groups: fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 3 }),
})
const grants = fc.uniqueArray(
  fc.record({
    who: fc.constantFrom('me', 'a', 'b', 'c', '*'),
    right: fc.constantFrom<ShareGrantEntity['right']>('none', 'read', 'change', 'full'),
  }),
  { selector: ({ who }) => who },
)
const marks = fc.record({
  uid: fc.integer({ min: 0, max: 4 }),
  gid: fc.integer({ min: 0, max: 4 }),
  mode: fc.integer({ min: 0, max: 0o777 }).map(mode => mode.toString(8).padStart(4, '0')),
})

test('what the server lets somebody do over SMB is what is computed, each by an engine of its own', () => {
  fc.assert(
    fc.property(grants, account, marks, fc.boolean(), (list, { uid, gid, gids, groups }, file, isWrite) => {
      const named = list.map(each => ({ ...each, name: each.who }))
      const known = { account: 'me', uid, gid, gids, ids: new Set(['me', ...groups]) }
      const served = mayTouchBySmb(named, known, file, isWrite).may
      const is = { durableId: 'me', groupIds: groups, uid, gid, groups: gids, isDisabled: false }
      expect(mayBySmb(named, is, isWrite ? 'write' : 'read', file).allowed).toBe(served)
    }),
    { numRuns: 1500 },
  )
})
