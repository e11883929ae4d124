/** @jest-environment jsdom */
import { screen, waitFor } from '@testing-library/react'
import { sampleId, sampleNode } from '@/core/estate/testing/samples'
import type { PathCell } from '@/core/network'
import { answering, shown } from '../../testing/browser'
import { pushed } from '../../testing/navigation'
import { ProbeMatrix } from './ProbeMatrix'

const nodes = [1, 2, 3].map(number => sampleNode(number))
const cell = (from: number, to: number, verdict: PathCell['verdict']) =>
  ({
    fromNodeId: sampleId(from),
    toNodeId: sampleId(to),
    verdict,
    words: `${verdict} on the way ${from} to ${to}`,
    remedy: `Mend ${from} to ${to}.`,
  }) as PathCell
const cells = [1, 2, 3].flatMap(from =>
  [1, 2, 3].filter(to => to !== from).map(to => cell(from, to, from === 3 || to === 3 ? 'smaller MTU' : 'passes')),
)
const matrix = (more: Partial<Parameters<typeof ProbeMatrix>[0]> = {}) => (
  <ProbeMatrix systemId="s" nodes={nodes} cells={cells} at="2026-03-01T10:00:00Z" wantedMtu={9000} isSet {...more} />
)

test('every pair says what it is; the first that fails is read out, another when it is pressed', async () => {
  const { user } = shown(matrix())
  expect(screen.getAllByRole('button', { name: /^godwit-\d to godwit-\d/ })).toHaveLength(6)
  expect(screen.getByText('smaller MTU on the way 1 to 3')).toBeTruthy()
  const other = screen.getByRole('button', { name: 'godwit-3 to godwit-2: smaller MTU' })
  await user.click(other)
  expect(other.getAttribute('aria-pressed')).toBe('true')
  expect(screen.getByText('Mend 3 to 2.')).toBeTruthy()
})

test('where every pair passes it says so in one line', () => {
  shown(matrix({ cells: cells.filter(each => each.verdict === 'passes') }))
  expect(screen.getByText('Every pair passes 9000 bytes whole.')).toBeTruthy()
})

test('probing asks the system and shows the answer; a refusal is told', async () => {
  const asked = answering(() => ({ body: {} }))
  const { user } = shown(matrix({ cells: [], at: null }))
  await user.click(screen.getByRole('button', { name: 'Probe all pairs now' }))
  await waitFor(() => expect(pushed).toEqual(['refreshed']))
  expect(asked).toMatchObject([{ method: 'POST', path: '/api/v1/systems/s/path-probes' }])
  answering(() => 'unreachable')
  await user.click(screen.getByRole('button', { name: 'Probe all pairs now' }))
  expect((await screen.findByRole('alert')).textContent).toContain('Wendrel does not answer.')
})

test('without a storage network there is nothing to probe', () => {
  shown(matrix({ cells: [], at: null, isSet: false }))
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Probe all pairs now' }).disabled).toBe(true)
  expect(screen.getByText(/Set the storage network of the nodes first/)).toBeTruthy()
})
