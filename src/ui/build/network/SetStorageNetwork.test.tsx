/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { sampleId, sampleNode, sampleNodePort } from '@/core/estate/testing/samples'
import { answering, choose, shown, type Asked } from '../../testing/browser'
import { samplePlan } from '../../testing/samplePlan'
import { SetStorageNetwork } from './SetStorageNetwork'

const nodes = [1, 2, 3].map(number => sampleNode(number))
const bare = nodes.flatMap((_, index) => [
  sampleNodePort(index + 1, { storage: null, traffic: ['host access'], name: 'port 2', id: sampleId(index + 161) }),
  sampleNodePort(index + 1, { storage: null }),
])
const suggestions = Object.fromEntries(nodes.map((node, index) => [node.id, `10.9.0.${11 + index}/24`]))
interface Sent {
  readonly intent: {
    readonly nodes: readonly { nodeId: string; portId: string; address: string }[]
    readonly vlan: number | null
  }
}
const intentOf = (asked: Asked | undefined) => (asked?.body as Sent).intent
/** Suggests addresses once the first is there; the name server knows the first node and gives the second another's. */
const api = (asked: Asked) => {
  if (asked.path === '/api/v1/name-lookups') {
    const at = new Date().toISOString()
    return {
      body: {
        items: [
          { kind: 'forward', query: 'godwit-1.example', answers: ['10.9.0.11'], why: null, at },
          { kind: 'reverse', query: '10.9.0.11', answers: ['godwit-1.example'], why: null, at },
          { kind: 'forward', query: 'godwit-2.example', answers: ['10.9.0.99'], why: null, at },
          { kind: 'reverse', query: '10.9.0.12', answers: [], why: null, at },
        ],
      },
    }
  }
  const hasFirst = intentOf(asked).nodes[0]?.address.includes('/') === true
  const plan = samplePlan(hasFirst ? { suggestions } : {})
  return { body: asked.path === '/api/v1/plans' ? plan : { id: 'c1', plan } }
}
const form = (ports = bare) => (
  <SetStorageNetwork systemId={sampleId(1)} nodes={nodes} nodePorts={ports} mtu={undefined} kept={undefined} />
)

test('a port of its own is taken before one that is shared; a shared one says what storage gets', async () => {
  answering(api)
  const { user } = shown(form())
  const port = screen.getByLabelText('Port of godwit-1')
  expect(port.textContent).toBe('port 1, 25 Gb/s, own')
  await choose(user, port, 'port 2, 25 Gb/s, shared')
  expect(screen.getByText('with host access: 50% when all are busy')).toBeTruthy()
})

test('addresses that follow the first are filled in at one press, and names looked up meanwhile', async () => {
  const asked = answering(api)
  const { user } = shown(form())
  await user.type(screen.getByLabelText('Address of godwit-1'), '10.9.0.11/24')
  await user.click(await screen.findByRole('button', { name: 'Fill in the addresses that follow the first' }))
  expect(screen.getByLabelText<HTMLInputElement>('Address of godwit-3').value).toBe('10.9.0.13/24')
  expect(screen.queryByRole('button', { name: /^Fill in/ })).toBeNull()
  await waitFor(() => expect(screen.getByText('names agree')).toBeTruthy())
  expect(screen.getByText('godwit-2.example leads to 10.9.0.99, not to 10.9.0.12.')).toBeTruthy()
  // The names were looked up with the first address already; with the others they are looked up once more, after a pause in typing.
  const lookups = () => asked.filter(each => each.path === '/api/v1/name-lookups')
  await waitFor(() =>
    expect(lookups().at(-1)?.body).toEqual({
      names: nodes.map(node => node.hostName),
      addresses: ['10.9.0.11', '10.9.0.12', '10.9.0.13'],
    }),
  )
})

test('leased addresses need none by hand; an empty VLAN is untagged; a node is left out', async () => {
  const asked = answering(api)
  const { user } = shown(form())
  await user.click(screen.getByRole('radio', { name: 'leased' }))
  expect(screen.queryByLabelText('Address of godwit-1')).toBeNull()
  await user.type(screen.getByLabelText('VLAN'), '30')
  await user.click(screen.getByRole('button', { name: 'Leave out godwit-2' }))
  await waitFor(() =>
    expect(asked.at(-1)?.body).toMatchObject({ intent: { origin: 'leased', vlan: 30, nodes: [{}, {}] } }),
  )
  await user.clear(screen.getByLabelText('VLAN'))
  await waitFor(() => expect(intentOf(asked.at(-1)).vlan).toBeNull())
})

test('a network that is set already is shown as it is', () => {
  answering(api)
  shown(form(nodes.map((_, index) => sampleNodePort(index + 1))))
  expect(screen.getByLabelText<HTMLInputElement>('Address of godwit-2').value).toBe('10.20.30.12/24')
  expect(screen.getByLabelText<HTMLInputElement>('VLAN').value).toBe('30')
})
