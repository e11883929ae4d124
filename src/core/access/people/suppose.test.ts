import fc from 'fast-check'
import { groupsAbove } from './membership'
import { suppose } from './suppose'

const ids = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 5 })

test('to be put into a group and taken out again leaves who was not in it as they were; nobody else is touched', () => {
  fc.assert(
    fc.property(ids, fc.constantFrom('a', 'b', 'z'), (memberOf, groupId) => {
      const me = { durableId: 'me', memberOf }
      const inIt = suppose(me, { what: 'in', groupId })
      expect(new Set(inIt.memberOf)).toEqual(new Set([...memberOf, groupId]))
      const out = suppose(inIt, { what: 'not in', groupId })
      expect(out.memberOf).toEqual(memberOf.filter(each => each !== groupId))
      expect(me.memberOf).toBe(memberOf)
    }),
  )
})

test('who leaves a group stays in it through another that is in it', () => {
  const groups = new Map([
    ['a', { durableId: 'a', memberOf: [] }],
    ['b', { durableId: 'b', memberOf: ['a'] }],
  ])
  const left = suppose({ durableId: 'me', memberOf: ['a', 'b'] }, { what: 'not in', groupId: 'a' })
  expect(groupsAbove(left, groups).map(({ durableId }) => durableId)).toEqual(['b', 'a'])
})
