/** @jest-environment jsdom */
import { screen, within } from '@testing-library/react'
import type { Finding } from '@/core/findings'
import type { FindingRecord } from '@/core/views'
import { isUnfolded, shown } from '../../testing/browser'
import { FindingList } from './FindingList'

const finding = (key: string, more: Partial<Finding> = {}): FindingRecord => ({
  finding: {
    key,
    check: key.split('/')[0] ?? '',
    gravity: 'soon',
    title: `${key} is found`,
    evidence: `seen at ${key}`,
    risk: 'A risk.',
    remedy: 'Mend it.',
    draft: null,
    offline: 'Pull the cable.',
    explainedBy: [],
    ...more,
  },
  systemId: 's',
  since: '2026-03-01T10:00:00.000Z',
  exception: null,
})
const list = (records: readonly FindingRecord[]) => <FindingList records={records} signHref="/sign?finding=" />

test('what a finding explains stands beneath it, the gravest first', () => {
  shown(
    list([
      finding('pool-hurt/p', { gravity: 'now', explainedBy: ['node-silent/n'] }),
      finding('newer-firmware/n', { gravity: 'note' }),
      finding('node-silent/n', { gravity: 'now' }),
    ]),
  )
  const top = [...(document.querySelector('section > ol')?.children ?? [])]
  expect(top.map(each => each.getAttribute('data-finding'))).toEqual(['node-silent', 'newer-firmware'])
  const beneath = within(screen.getByRole('list', { name: 'Explained by: node-silent/n is found' }))
  expect(beneath.getByText('pool-hurt/p is found')).toBeTruthy()
  expect(screen.getByText('three stand, causes first')).toBeTruthy()
})

test('a remedy that a change can bring is drafted from it; an exception names its finding', async () => {
  const draft = { kind: 'erase-drive', intent: {}, href: '/erase' }
  const { user } = shown(list([finding('foreign/a b', { draft }), finding('other/x')]))
  await user.click(screen.getByText('other/x is found'))
  expect(screen.getAllByRole('link', { name: 'Draft it' }).map(each => each.getAttribute('href'))).toEqual(['/erase'])
  expect(screen.getAllByRole('link', { name: 'let it stand' })[0]?.getAttribute('href')).toBe(
    '/sign?finding=foreign%2Fa%20b',
  )
  expect(screen.getAllByText('Without a network: Pull the cable.')).toHaveLength(2)
})

test('a signed finding is told apart with who signed it until when, and no longer counts', async () => {
  const exception = { reason: 'Waits for its part.', signedBy: 'keeper', until: '2026-05-01T00:00:00.000Z' }
  const { user } = shown(list([{ ...finding('a/1'), exception }]))
  expect(screen.getByText('none stand')).toBeTruthy()
  expect(screen.getByText('Nothing is wrong here.')).toBeTruthy()
  await user.click(screen.getByText('One finding stands by a signed exception'))
  expect(screen.getByText('Waits for its part. Signed by keeper, until 2026-05-01.')).toBeTruthy()
})

test('findings that explain each other in a circle are shown all the same', () => {
  shown(list([finding('a/1', { explainedBy: ['b/1'] }), finding('b/1', { explainedBy: ['a/1'] })]))
  expect(screen.getByText('a/1 is found')).toBeTruthy()
  expect(screen.getByText('b/1 is found')).toBeTruthy()
})

test('what calls for work at once stands open, and of what can wait only the first', () => {
  shown(list([finding('a/1'), finding('b/1'), finding('c/1', { gravity: 'now' }), finding('d/1', { gravity: 'now' })]))
  expect(['c/1', 'd/1', 'a/1', 'b/1'].map(key => isUnfolded(screen.getByText(`${key} is found`)))).toEqual([
    true,
    true,
    false,
    false,
  ])
})
