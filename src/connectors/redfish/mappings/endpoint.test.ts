import { nameOf, newEndpoint } from './endpoint'

test.each([
  ['iqn.2026-01.example:a', 'iSCSI', 'iQN'],
  ['50:01:40:5c:0f:fe:e0:01', 'FC', 'FC_WWN'],
  ['nqn.2026-01.example:a', 'NVMeOverFabrics', 'NQN'],
  ['eui.0123456789abcdef', 'iSCSI', 'EUI'],
])('%s logs in over %s under a name of format %s', (name, protocol, format) => {
  expect(newEndpoint(name)).toEqual({
    Name: name,
    EndpointProtocol: protocol,
    Identifiers: [{ DurableNameFormat: format, DurableName: name }],
  })
})

test('a name is known again however its system spells it; one of no known kind stays as it is', () => {
  const named = (DurableName: string | null) => nameOf({ Identifiers: [{ DurableName }] })
  expect(named('5001405C0FFEE001')).toBe('50:01:40:5c:0f:fe:e0:01')
  expect(named('IQN.2026-01.Example:A')).toBe('iqn.2026-01.example:a')
  expect(named('wwn of ours')).toBe('wwn of ours')
  expect(named(null)).toBe('')
  expect(nameOf({ Identifiers: [] })).toBe('')
})
