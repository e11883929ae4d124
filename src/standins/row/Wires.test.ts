import type { NodePortEntity, SwitchPortEntity } from './entities'
import { Wires } from './Wires'

const switchPort = (id: string, more: Partial<SwitchPortEntity> = {}): SwitchPortEntity => ({
  id,
  switchId: id.split('.')[0] ?? id,
  name: id,
  mtu: 9216,
  vlans: [30],
  isUp: true,
  peerPortId: null,
  ...more,
})

const nodePort = (number: number, switchPortId: string, mtu = 9000): NodePortEntity => ({
  id: `n${number}.1`,
  nodeId: `n${number}`,
  name: 'port 1',
  mac: '',
  speedGbps: 25,
  isUp: true,
  mtu,
  traffic: [],
  switchPortId,
  hasReservation: false,
  storage: {
    family: 'IPv4',
    address: `10.20.30.${number}`,
    prefixLength: 24,
    origin: 'static',
    isReserved: false,
    vlan: 30,
  },
})

/** Two nodes at two switches with one cable between them. */
const wires = (cable: Partial<SwitchPortEntity> = {}, nodePorts = [nodePort(1, 'a.1'), nodePort(2, 'b.1')]) =>
  new Wires({
    nodePorts,
    switches: ['a', 'b'].map(id => ({ id, name: id, model: 'm', firmware: '1' })),
    switchPorts: [
      switchPort('a.1'),
      switchPort('b.1'),
      switchPort('a.9', { peerPortId: 'b.9', ...cable }),
      switchPort('b.9', { peerPortId: 'a.9' }),
    ],
    isAnswering: nodeId => nodeId !== 'n9',
  })

test('the narrowest port on the way across switches says how large a packet may be', () => {
  expect(wires().passes('n1', '10.20.30.2', 9000)).toBe(9000)
  expect(wires({ mtu: 4200 }).passes('n1', '10.20.30.2', 9000)).toBe(4200)
  expect(wires({ mtu: 4200 }).passes('n1', '10.20.30.2', 1500)).toBe(1500)
  expect(wires({ mtu: 500 }).passes('n1', '10.20.30.2', 9000)).toBeNull()
})

test.each([
  ['a cable that is down', { isUp: false }],
  ['another VLAN', { vlans: [1] }],
  ['a cable that ends nowhere', { peerPortId: null }],
])('nothing passes over %s', (_, cable) => {
  expect(wires(cable).passes('n1', '10.20.30.2', 9000)).toBeNull()
})

test('an address that nobody holds, two hold, the sender holds, or that is none, answers nothing', () => {
  const twice = [nodePort(1, 'a.1'), nodePort(2, 'b.1'), { ...nodePort(2, 'a.1'), id: 'n3.1', nodeId: 'n3' }]
  expect(wires({}, twice).passes('n1', '10.20.30.2', 1500)).toBeNull()
  for (const address of ['10.20.30.77', '10.20.30.1', 'nowhere', ''])
    expect(wires().passes('n1', address, 1500)).toBeNull()
  expect(wires({}, [nodePort(1, 'a.1'), nodePort(9, 'b.1')]).passes('n1', '10.20.30.9', 1500)).toBeNull()
})
