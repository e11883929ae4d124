/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { sampleId } from '@/core/estate/testing/samples'
import { upByController, type WaysSeen } from '@/core/views'
import { shown, wordsOf } from '../../testing/browser'
import { DisksSeen, Unknown, Ways } from '.'

const way = (controller: string | null, isUp: boolean, target = 't') => ({ target, controller, isUp })
const seen = (more: Partial<WaysSeen> = {}): WaysSeen => ({
  hostId: sampleId(1),
  hostName: 'register-1',
  hostGroupId: sampleId(2),
  naa: '6'.repeat(32),
  lun: 4,
  disk: { id: sampleId(3), name: 'photos-01', isVolume: true },
  systemName: 'heron',
  ways: [way('A', true), way('A', true), way('B', true), way('B', false)],
  since: '2026-05-04T10:00:00Z',
  ...more,
})

test('ways are counted by controller', () =>
  expect(upByController(seen())).toEqual([
    { controller: 'A', up: 2, all: 2 },
    { controller: 'B', up: 1, all: 2 },
  ]))

test.each([
  [[way('A', true), way('B', true)], '[fine] A 1 up, B 1 up'],
  [[way('A', true), way('B', false)], '[soon] A 1 up, B 0 of 1 up'],
  [[way('A', false), way('B', false)], '[now] A 0 of 1 up, B 0 of 1 up'],
  [[way('A', true)], '[fine] A 1 up'],
  [[], 'not told'],
])('a disk says how many of its ways are up', (ways, words) => {
  const { container } = shown(<Ways seen={{ ways }} />)
  expect(wordsOf(container)).toBe(words)
})

test('what a host sees leads to the volume or the snapshot that it is; a disk that nobody knows stands by its name', () => {
  const snapshot = { id: sampleId(4), name: 'photos-01.noon', isVolume: false }
  shown(
    <DisksSeen
      seen={[seen(), seen({ naa: '7'.repeat(32), disk: snapshot }), seen({ naa: '8'.repeat(32), disk: null })]}
    />,
  )
  expect(screen.getByRole('link', { name: 'photos-01' }).getAttribute('href')).toBe(`/provision?sel=${sampleId(3)}`)
  expect(screen.getByRole('link', { name: 'photos-01.noon' }).getAttribute('href')).toContain(
    '/provision/snapshots?sel=',
  )
  expect(screen.getByText('8'.repeat(32))).toBeTruthy()
})

test('a name that nobody has registered leads to a draft with its line filled in', () => {
  const initiator = 'iqn.2019-04.example.marrowfield:scanner-gate'
  const items = [
    { initiator, systems: ['bittern'], groups: ['ct-scans'] },
    { initiator: '"><script>alert(1)</script>', systems: ['heron', 'plover'], groups: [] },
  ]
  const { container, unmount } = shown(<Unknown unknown={{ items, total: 40 }} />)
  const [register] = screen.getAllByRole('link', { name: 'Register' })
  const href = new URL(register?.getAttribute('href') ?? '', 'http://here')
  expect([href.pathname, href.searchParams.get('draft'), href.searchParams.get('list')]).toEqual([
    '/provision/hosts',
    'register-hosts',
    `scanner-gate,ct-scans,${initiator}`,
  ])
  expect(screen.getByText('sees what ct-scans is shown by bittern')).toBeTruthy()
  expect(screen.getByText('is shown nothing by heron, plover')).toBeTruthy()
  expect([container.querySelector('script'), wordsOf(container).includes('2 of 40')]).toEqual([null, true])
  unmount()
  expect(wordsOf(shown(<Unknown unknown={{ items: [], total: 0 }} />).container)).toBe('')
})
