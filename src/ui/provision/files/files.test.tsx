/** @jest-environment jsdom */
import { screen, within } from '@testing-library/react'
import { sampleFileService, sampleId, sampleShare, sampleSystem, sampleVolume } from '@/core/estate/testing/samples'
import type { SharePage } from '@/core/views'
import { answering, choose, shown, wordsOf } from '../../testing/browser'
import { pushed } from '../../testing/navigation'
import { GrantsTable, LimitTable, RootAfterRules, RulesTable, WhoCan } from '.'
import { quotaOf } from './quotaOf'

const host = (number: number, name: string, address: string) => ({
  id: sampleId(number),
  name,
  addresses: [address],
  agentAddress: null,
})
const page = (more: Partial<SharePage> = {}): SharePage => ({
  share: sampleShare(),
  missingSince: null,
  service: sampleFileService(),
  volume: sampleVolume(),
  system: sampleSystem(),
  hosts: [host(80, 'scan-1', '10.0.1.7'), host(81, 'desk-1', '10.0.1.8'), host(82, 'far-1', '192.0.2.9')],
  hostCount: 3,
  changes: [],
  ...more,
})

test('each rule says which hosts it is for, how many addresses it decides, and that others are refused', () => {
  const { container } = shown(<RulesTable rules={sampleShare().rules} hosts={page().hosts} />)
  const words = wordsOf(container)
  expect(words).toMatch(/110\.0\.1\.7scan-1rwrootsys1/)
  expect(words).toMatch(/210\.0\.1\.0\/24desk-1roallsys253/)
  expect(words).toContain('any otherrefusedno rule')
})

test('grants say where they stand, and that nobody else is let in; those of the service lead there', () => {
  const studio = { who: 's', name: 'Photo studio', right: 'change' } as const
  const { container, rerender } = shown(<GrantsTable grants={[studio]} />)
  expect(wordsOf(container)).toContain('WhoMayPhoto studioread, writeanybody elserefused: no grant')
  const all = { who: '*', name: '', right: 'none' } as const
  rerender(<GrantsTable grants={[studio]} serviceGrants={[all]} serviceHref="/provision/file-services/7" />)
  expect(wordsOf(container)).toContain(
    'Photo studioread, writethis shareEverybody who signs inrefusedits whole service',
  )
  expect(screen.queryByText('anybody else')).toBeNull()
  rerender(<GrantsTable grants={[studio]} isForAll />)
  expect(wordsOf(container)).toContain('anybody elseas each share says')
  rerender(<GrantsTable grants={[studio]} serviceGrants={[all]} serviceHref="/provision/file-services/7" />)
  expect(screen.getByRole('link').getAttribute('href')).toBe('/provision/file-services/7')
})

test('a rule that nobody meets says who decides in its place', () => {
  const [first, second] = sampleShare().rules
  const rules = [first, second, { ...second, access: 'rw' as const }].flatMap(each =>
    each === undefined ? [] : [each],
  )
  shown(<RulesTable rules={rules as never} hosts={[]} />)
  expect(screen.getByText(/never reached: rule 2 names the same/)).toBeTruthy()
})

test('a rule for a host by its name stands beside the host that the name server calls so, and answers who can', async () => {
  const [first] = sampleShare().rules
  const named = { ...first, client: 'scan-1.canal.example', access: 'rw' as const }
  const scan = { ...host(91, 'scan-1', '192.0.2.77'), clientName: 'Scan-1.canal.example' }
  const { user } = shown(
    <>
      <RulesTable rules={[named] as never} hosts={[scan, host(92, 'desk-9', '192.0.2.78')]} />
      <WhoCan
        page={page({
          share: sampleShare({ rules: [named] as never }),
          hosts: [scan, host(92, 'desk-9', '192.0.2.78')],
        })}
      />
    </>,
  )
  expect(screen.getByRole('row', { name: /scan-1\.canal\.example.*scan-1/ }).textContent).not.toContain('desk-9')
  await choose(user, screen.getByLabelText('From host'), /scan-1/)
  expect(screen.getByRole('status').textContent).toContain('Yes')
  await choose(user, screen.getByLabelText('From host'), /desk-9/)
  expect(screen.getByRole('status').textContent).toContain('No.')
})

test('the root is shown behind each rule: what a rule takes is struck out, and who counts as somebody else', () => {
  const { container } = shown(
    <RootAfterRules rules={sampleShare().rules} root={{ uid: 2001, gid: 300, mode: '2775' }} />,
  )
  const words = wordsOf(container)
  expect(words).toMatch(/owner, uid 2001rwxrwxr-xas other/)
  expect(words).toMatch(/uid 0passesr-xas otherr-xas other/)
})

test('who can is answered as it is asked, gate by gate, with what would turn it and the answers nearby', async () => {
  const { user, container } = shown(<WhoCan page={page()} />)
  expect(screen.getByRole('status').textContent).toContain('Yes')
  await choose(user, screen.getByLabelText('From host'), /desk-1/)
  expect(screen.getByRole('status').textContent).toContain('No. Export rule: rule 2, 10.0.1.0/24: only reads.')
  const gates = within(screen.getByRole('list', { name: 'Gates in their order' })).getAllByRole('listitem')
  expect(gates.map(each => each.textContent)).toEqual([
    'Serviceanswers at 10.0.0.1, 10.0.0.2',
    'Export rulerule 2, 10.0.1.0/24: only reads',
    'Sign-inwould pass: sys',
    'Modewould stop: uid 2001 counts as 65534, other: ---',
    'Roomwould pass: there is room in it',
  ])
  expect(screen.getByRole('button', { name: 'Add a rule for 10.0.1.8: rw' })).toBeTruthy()
  expect(wordsOf(container)).toContain('one host')
  await user.clear(screen.getByLabelText('uid'))
  await user.type(screen.getByLabelText('uid'), 'x')
  expect(screen.getByText('A whole number.')).toBeTruthy()
})

test('what would turn the answer becomes a draft of the share, and one of a group is only said', async () => {
  const asked = answering(() => ({ status: 201, body: { id: 'c7' } }))
  const { user } = shown(
    <WhoCan page={page({ share: sampleShare({ rules: [{ ...sampleShare().rules[0], client: '*' }] as never }) })} />,
  )
  await user.clear(screen.getByLabelText('uid'))
  await user.type(screen.getByLabelText('uid'), '7')
  await user.clear(screen.getByLabelText('gid, other groups'))
  expect(screen.getByText('Take this identity into group 300')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Set the mode of its root to 2777' }))
  expect(asked.at(-1)?.body).toMatchObject({
    kind: 'set-share-rights',
    intent: { shareId: sampleId(71), mode: '2777' },
  })
  expect(pushed.at(-1)).toContain('draft=set-share-rights&change=c7')
})

test('limits of people are shown with what has been written of each; those of directories stand in their tree', () => {
  const share = sampleShare({
    quotas: [
      { path: '/people', of: 'each directory', id: null, softBytes: '100', hardBytes: '200', graceDays: 7 },
      { path: '/', of: 'user', id: 7, softBytes: null, hardBytes: '50', graceDays: 0 },
    ],
    quotaUsage: [
      { index: 0, key: '/people/ines', usedBytes: '150', overSoftSince: null },
      { index: 1, key: 'user 7', usedBytes: '20', overSoftSince: '2026-01-01T00:00:00.000Z' },
    ],
    fileRules: [{ pattern: '*.mp3', content: 'audio', verdict: 'deny' }],
  })
  const { container } = shown(<LimitTable share={share} />)
  const words = wordsOf(container)
  expect(words).toMatch(/user 720 B–50 B.*ago/)
  expect(words).not.toContain('/people/ines')
  expect(words).toContain('*.mp3is audio by its first bytes')
  expect(quotaOf(share)(7, 7)).toEqual({ leftBytes: 30n, words: '30 B left by quota 2' })
  expect(quotaOf(share)(8, 7)).toBeUndefined()
  expect(wordsOf(shown(<LimitTable share={sampleShare()} />).container)).toContain('whoever may write may fill it')
})
