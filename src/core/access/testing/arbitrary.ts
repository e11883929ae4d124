import fc from 'fast-check'

const clients = fc.constantFrom(
  '*',
  '10.1.2.3',
  '10.1.2.0/24',
  '10.1.0.0/16',
  '10.1.2.3/32',
  'a.example',
  '10.9.0.0/16',
  'fd00::/8',
  '0.0.0.0/0',
)
const anyRule = fc.record({
  client: clients,
  access: fc.constantFrom('rw' as const, 'ro' as const, 'none' as const),
  squash: fc.constantFrom('none' as const, 'root' as const, 'all' as const),
  anonUid: fc.constantFrom(65_534, 0, 1000),
  anonGid: fc.constantFrom(65_534, 300),
  flavours: fc.constantFrom(['sys' as const], ['krb5' as const], ['sys' as const, 'krb5p' as const]),
})
const ids = fc.constantFrom(0, 7, 300, 1000)
/** Somebody who asks. */
export const anyRequest = fc.record({
  clientAddress: fc.constantFrom('10.1.2.3', '10.1.9.9', '10.9.1.1', 'fd00::1', '192.0.2.1'),
  clientName: fc.constantFrom(null, 'a.example', 'b.example'),
  uid: ids,
  gid: ids,
  groups: fc.array(ids, { maxLength: 2 }),
  flavour: fc.constant('sys' as const),
  operation: fc.constantFrom('read' as const, 'write' as const),
})
/** Entries in which the same people are named in many ways. */
export const anyAcl = fc.array(
  fc.record({
    kind: fc.constantFrom('allow' as const, 'deny' as const),
    who: fc.constantFrom('OWNER@', 'GROUP@', 'EVERYONE@', 'uid:7', 'uid:1000', 'gid:300', 'gid:7', 'uid:65534'),
    may: fc.constantFrom('read' as const, 'write' as const, 'both' as const),
  }),
  { maxLength: 5 },
)
/** A root directory of any mode, and half of the time with a list. */
export const anyRoot = fc.record({
  acl: fc.oneof(fc.constant([]), anyAcl),
  uid: ids,
  gid: ids,
  mode: fc.integer({ min: 0, max: 0o7777 }).map(mode => mode.toString(8).padStart(4, '0')),
})
/** Rules in which the same hosts are named in many ways. */
export const anyRules = fc.array(anyRule, { maxLength: 6 })
