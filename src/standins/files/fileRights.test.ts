import fc from 'fast-check'
import { exportTable, mayFile, type FileOwner } from '@/core/access'
import { anyRequest, anyRoot, anyRules } from '@/core/access/testing/arbitrary'
import { mayTouch, ruleFor } from '.'

/** The same root as a server keeps it. */
const marked = ({ acl = [], ...owner }: FileOwner) => ({
  ...owner,
  list: acl.map(({ kind, who, may }) => ({
    isRefusal: kind === 'deny',
    who,
    bits: (may === 'write' ? 0 : 1) | (may === 'read' ? 0 : 2),
  })),
})

test('what is computed is what a server does that was written by itself', () => {
  fc.assert(
    fc.property(anyRules, anyRequest, anyRoot, (all, asked, owner) => {
      const caller = { address: asked.clientAddress, name: asked.clientName, ...asked }
      const answer = mayFile(exportTable(all), asked, owner)
      expect(answer.ruleIndex === null ? undefined : all[answer.ruleIndex]).toBe(ruleFor(all, caller))
      expect(answer.allowed).toBe(mayTouch(all, caller, marked(owner), asked.operation === 'write').may)
    }),
    { numRuns: 2000 },
  )
})
