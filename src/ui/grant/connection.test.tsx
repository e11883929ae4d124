/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { sampleFileService, sampleId, sampleShare } from '@/core/estate/testing/samples'
import { connectionHops, wayOut, type Reached, type WayFound } from '@/core/network'
import type { ConnectionPage, ConnectionTest } from '@/core/views'
import { answering, choose, shown, wordsOf } from '../testing/browser'
import { pushed } from '../testing/navigation'
import { ConnectionSheet } from '.'

const share = sampleShare({ name: 'scans' })
const host = { id: sampleId(70), name: 'lending-3', addresses: ['10.64.7.33'] }
const to: Reached = {
  ...{ name: 'files.hall.example', addresses: ['10.60.2.40'], over: 'NFS', share: 'scans', isServedSo: true },
  may: { mount: true, read: true, write: false },
}
const outside: WayFound = {
  name: { server: '192.0.2.53:53', domain: null, addresses: ['203.0.113.40'], keptSeconds: 300, milliseconds: 2.25 },
  ...{ address: '203.0.113.40', route: { source: '10.64.7.33', gateway: '10.64.7.1' }, ports: [] },
}
const inside: WayFound = {
  name: { ...outside.name, server: '10.0.0.53:53', domain: to.name, addresses: ['10.60.2.40'] },
  ...{ address: '10.60.2.40', route: outside.route },
  ports: [{ port: 2049, isOpen: true, speaks: 'NFSv4.2', milliseconds: 0.4 }],
}
const test_ = (number: number, more: Partial<ConnectionTest>): ConnectionTest => ({
  ...{ id: sampleId(number), hostId: host.id, shareId: share.id, protocol: 'NFS', caller: 'uid 2001, gid 300' },
  ...{ at: new Date(Date.now() - number * 60_000).toISOString(), madeBy: 'keeper', hops: [], wayOut: null },
  ...more,
})
const astray = test_(2, {
  hops: connectionHops(outside, to, undefined),
  wayOut: wayOut(outside, to, [{ address: '10.60.2.40', isOpen: true }], '10.0.0.53:53'),
})
const after = test_(1, {
  hops: connectionHops(inside, to, { mount: null, read: null, write: 'read-only file system', milliseconds: 4 }),
})
const sheet = (tests: readonly ConnectionTest[], more: Partial<ConnectionPage> = {}) => (
  <ConnectionSheet
    page={{ hosts: [host], shares: [share], services: [sampleFileService()], tests, latest: tests, ...more }}
    asked={{ hostId: host.id, shareId: share.id, testId: undefined, beforeId: undefined }}
  />
)
const rowOf = (name: string) => wordsOf(screen.getByRole('row', { name: new RegExp(`^${name}`) }))

test('where the way ends stands in the sentence, the line and the table; the forwarder becomes a draft', async () => {
  const asked = answering(() => ({ status: 201, body: { id: sampleId(9) } }))
  const { user } = shown(sheet([astray]))
  expect(screen.getByRole('status').textContent).toContain(
    'uid 2001, gid 300 does not get from lending-3 to scans over NFS: it ends at the address.',
  )
  expect(screen.getByRole('img', { name: 'The way from lending-3 to scans: ends at the address' })).toBeTruthy()
  expect(rowOf('Address')).toContain('ends here: 203.0.113.40, public')
  expect(rowOf('Write')).toContain('not tried')
  await user.click(screen.getByRole('button', { name: 'Draft the forwarder' }))
  await waitFor(() => expect(pushed.at(-1)).toContain(`draft=forward-names&change=${sampleId(9)}`))
  expect(asked.at(-1)?.body).toEqual({
    kind: 'forward-names',
    intent: { hostId: host.id, domain: 'files.hall.example', server: '10.0.0.53:53' },
  })
})

test('beside each hop stands what was found before, where it was otherwise', () => {
  shown(sheet([after, astray]))
  expect(screen.getByRole('status').textContent).toContain('and may only read.')
  expect(rowOf('Address')).toMatch(/10\.60\.2\.40, private.*203\.0\.113\.40, public/)
  expect(rowOf('Route')).toContain('not tried')
  expect(screen.queryByRole('button', { name: 'Draft the forwarder' })).toBeNull()
  expect(screen.getAllByRole('row', { name: /by keeper/ })).toHaveLength(2)
})

test('a test is asked for as chosen; numbers that are none bar it, and a refusal says its reason', async () => {
  const refusal = { code: 'looking.no-agent', what: 'No host was asked.', why: 'It has no agent.', remedy: 'Choose.' }
  const asked = answering(() => ({ status: 409, body: refusal }))
  const { user } = shown(sheet([]))
  const run = screen.getByRole<HTMLButtonElement>('button', { name: 'Test it now' })
  await user.clear(screen.getByLabelText('uid'))
  expect(run.disabled).toBe(true)
  await user.type(screen.getByLabelText('uid'), '2001')
  await user.click(run)
  await screen.findByText(/It has no agent\./)
  expect(asked.at(-1)?.body).toEqual({
    ...{ hostId: host.id, shareId: share.id, protocol: 'NFS', personId: '', uid: 2001, gid: 1000 },
  })
  await user.click(screen.getByRole('radio', { name: 'SMB' }))
  expect(run.disabled).toBe(true)
})

test.each([
  ['no host has an agent', { hosts: [] }, 'No host with an agent is known that could try.'],
  ['there is no share', { shares: [] }, 'There is no share to be reached yet.'],
])('where %s, that is said', (_, more, words) => {
  shown(sheet([], more))
  expect(screen.getByText(words)).toBeTruthy()
})

test('what was typed stays when another host or share is chosen; what was refused is of its own ends only', async () => {
  const refused = { code: 'looking.no-address', what: 'It was not tested.', why: 'No address.', remedy: 'Give one.' }
  answering(() => ({ status: 422, body: refused }))
  const other = { id: sampleId(71), name: 'lending-4', addresses: ['10.64.7.34'] }
  const page: ConnectionPage = { hosts: [host, other], shares: [share], services: [], tests: [], latest: [] }
  const from = (hostId: string) => (
    <ConnectionSheet page={page} asked={{ hostId, shareId: share.id, testId: undefined, beforeId: undefined }} />
  )
  const { user, rerender } = shown(from(host.id))
  await user.clear(screen.getByLabelText('uid'))
  await user.type(screen.getByLabelText('uid'), '2001')
  await user.click(screen.getByRole('button', { name: 'Test it now' }))
  expect(await screen.findByText(/It was not tested/)).toBeTruthy()
  rerender(from(other.id))
  expect(screen.getByLabelText<HTMLInputElement>('uid').value).toBe('2001')
  expect(screen.queryByText(/It was not tested/)).toBeNull()
})

test('what is chosen next rests on what was chosen last, however long the server takes; a link is another choice', async () => {
  answering(() => ({ body: {} }))
  const other = { id: sampleId(71), name: 'lending-4', addresses: ['10.64.7.34'] }
  const page: ConnectionPage = { hosts: [host, other], shares: [share], services: [], tests: [], latest: [] }
  const at = (hostId: string, shareId: string) => (
    <ConnectionSheet page={page} asked={{ hostId, shareId, testId: undefined, beforeId: undefined }} />
  )
  const run = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Test it now' })
  const { user, rerender } = shown(at('', ''))
  await choose(user, screen.getByLabelText('Host'), /lending-3/)
  await choose(user, screen.getByLabelText('Share'), /scans/)
  expect(pushed.at(-1)).toContain(`host=${host.id}&share=${share.id}`)
  expect(run().disabled).toBe(false)
  // The first answer comes back behind the second choice, and takes nothing of it away.
  rerender(at(host.id, ''))
  expect(run().disabled).toBe(false)
  rerender(at(host.id, share.id))
  rerender(at('', share.id))
  expect(run().disabled).toBe(true)
})
