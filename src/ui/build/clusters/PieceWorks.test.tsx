/** @jest-environment jsdom */
import type { PieceWork } from '@/core/views'
import { shown, wordsOf } from '../../testing/browser'
import { PieceWorks } from './PieceWorks'

const work = (more: Partial<PieceWork>): PieceWork => ({
  id: JSON.stringify(more),
  kind: 'rebuild',
  bytes: 10n ** 12n,
  p10Seconds: 3000,
  p50Seconds: 3600,
  p90Seconds: 5400,
  boundBy: 'the drives that read',
  startedEstateAt: '2026-03-01T10:00:00.000Z',
  endedEstateAt: '2026-03-01T11:00:00.000Z',
  doneRatio: 1,
  state: 'done',
  wasForecast: true,
  ...more,
})
const said = (more: Partial<PieceWork>) => {
  const { container, unmount } = shown(<PieceWorks works={[work(more)]} />)
  const words = wordsOf(container.querySelector('tr'))
  unmount()
  return words
}

test('a rebuild within its range, one outside it, and one that still runs', () => {
  expect(said({})).toBe('Made anew 931.3 GiBforecast 50 min to 1 h 30 min, by the drives that read[fine] took 60 min')
  expect(said({ endedEstateAt: '2026-03-01T15:00:00.000Z' })).toContain('[soon] took 5 h, outside the range')
  expect(said({ state: 'running', endedEstateAt: null, doneRatio: 0.374 })).toContain('[note] 37% done')
})

test('what ended unseen claims no forecast, and what ended early no success', () => {
  expect(said({ wasForecast: false })).toContain('ended before it was seen: nothing was forecast[note] took 60 min')
  expect(said({ state: 'failed' })).toContain('[now] ended early, after 60 min')
})
