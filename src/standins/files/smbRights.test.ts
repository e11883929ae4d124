import fc from 'fast-check'
import { allGrants, mayBySmb } from '@/core/access'
import type { ShareGrantEntity } from '../array'
import { mayTouchBySmb, standing } from './smbRights'

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
const acl = fc.array(
  fc.record({
    kind: fc.constantFrom('allow' as const, 'deny' as const),
    who: fc.constantFrom('OWNER@', 'GROUP@', 'EVERYONE@', 'uid:1', 'gid:2', 'gid:3'),
    may: fc.constantFrom('read' as const, 'write' as const, 'both' as const),
  }),
  { maxLength: 4 },
)
const marks = fc.record({
  acl,
  uid: fc.integer({ min: 0, max: 4 }),
  gid: fc.integer({ min: 0, max: 4 }),
  mode: fc.integer({ min: 0, max: 0o777 }).map(mode => mode.toString(8).padStart(4, '0')),
})

test('what the server lets somebody do over SMB is what is computed, each by an engine of its own', () => {
  fc.assert(
    fc.property(
      grants,
      grants,
      account,
      marks,
      fc.boolean(),
      (list, all, { uid, gid, gids, groups }, file, isWrite) => {
        const [own, ofService] = [list, all].map(some => some.map(each => ({ ...each, name: each.who })))
        const known = { account: 'me', uid, gid, gids, ids: new Set(['me', ...groups]) }
        const stated = standing({ share: { grants: own }, service: { grants: ofService } })
        const kept = file.acl.map(({ kind, who, may }) => ({
          ...{ isRefusal: kind === 'deny', who },
          bits: { read: 1, write: 2, both: 3 }[may],
        }))
        const served = mayTouchBySmb(stated, known, { ...file, list: kept }, isWrite).may
        const is = { durableId: 'me', groupIds: groups, uid, gid, groups: gids, isDisabled: false }
        const computed = allGrants({ grants: own ?? [], serviceGrants: ofService ?? [] })
        expect(mayBySmb(computed, is, isWrite ? 'write' : 'read', file).allowed).toBe(served)
      },
    ),
    { numRuns: 1500 },
  )
})
