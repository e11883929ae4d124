/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { stops, type Part, type Stop, type Thread } from '@/core/threads'
import type { PartState, ThreadPage } from '@/core/views'
import { shown } from '../../testing/browser'
import { ThreadDrawing, ThreadMargin } from '.'

const part = (stop: Stop, name: string): Part => ({ key: `${stop}/${name}`, stop, name })
const thread = (...names: readonly string[]) =>
  Object.fromEntries(
    stops.map((stop, index) => [stop, names[index] === '' ? [] : [part(stop, names[index] ?? '')]]),
  ) as unknown as Thread
const fine: PartState = { gravity: 'fine', words: 'whole', href: '/x', systemId: 's' }
const page: ThreadPage = {
  threads: [
    thread('register', 'register-1', 'data', 'fast', 'group 1'),
    thread('', '', 'unseen', 'fast', 'group 1'),
    thread('scans', 'scan-1', 'raw', 'bulk', 'group 2'),
  ],
  states: {
    'volume/data': { gravity: 'now', words: '5.9 of 4 ms', href: '/watch/performance?sel=1', systemId: 's' },
    'pool/fast': fine,
    'drives/group 1': { ...fine, gravity: 'now', words: '1 failed' },
    'pool/bulk': { ...fine, systemId: 'other' },
  },
  total: 3,
  findings: [
    {
      finding: {
        key: 'drive/1',
        check: 'drive',
        gravity: 'now',
        title: 'Drive 96D2 has failed',
        evidence: '',
        risk: 'Reads wait.',
        remedy: '',
        draft: null,
        offline: '',
        explainedBy: [],
      },
      systemId: 's',
      since: '2026-05-04T00:00:00Z',
      exception: null,
    },
  ],
}

test('each part stands once, and leads to its thread', () => {
  shown(<ThreadDrawing page={page} sel={undefined} />, '/watch/threads')
  expect(screen.getAllByRole('link')).toHaveLength(11)
  expect(screen.getByRole('link', { name: /^fast/ }).getAttribute('href')).toBe('?sel=pool%2Ffast')
  expect(screen.getByRole('link', { name: /5.9 of 4 ms/ })).toBeTruthy()
})

test('of what is chosen the threads are drawn; chosen again, nothing is', () => {
  const { container } = shown(<ThreadDrawing page={page} sel="pool/fast" />, '/watch/threads')
  const chosen = screen.getByRole('link', { current: true })
  expect([chosen.textContent?.slice(0, 4), chosen.getAttribute('href')]).toEqual(['fast', '?'])
  const drawn = [...container.querySelectorAll('path')].filter(each => each.getAttribute('stroke') === 'var(--action)')
  // Its own line and those of six parts besides, and the curves between them.
  expect(drawn).toHaveLength(6 + 5)
})

test('a part says what may explain it, what it carries and what it needs', () => {
  shown(<ThreadMargin page={page} part={part('pool', 'fast')} />, '/watch/threads')
  expect(screen.getByText('Drive 96D2 has failed')).toBeTruthy()
  expect(screen.getByRole('link', { name: 'register' })).toBeTruthy()
  expect(screen.getByRole('link', { name: 'group 1' })).toBeTruthy()
  expect(screen.queryByRole('link', { name: 'raw' })).toBeNull()
})

test('what stands on another system is not explained by this one', () => {
  shown(<ThreadMargin page={page} part={part('pool', 'bulk')} />, '/watch/threads')
  expect(screen.getByText('Nothing is found amiss where it stands.')).toBeTruthy()
})
