/** @jest-environment jsdom */
import { screen, within } from '@testing-library/react'
import { leftWhys, type LeftBehind, type LeftList } from '@/core/views'
import { shown } from '../../testing/browser'
import { LeftLists, leftSentence, WhatCounts } from '.'

const line = (name: string, more: Partial<LeftList['lines'][number]> = {}) => ({
  ...{ id: name, volumeId: `of-${name}`, name, snapshotName: null, poolName: 'bulk', since: null, bytes: 2 ** 40 },
  ...more,
})
const left = (
  lists: Partial<Record<LeftList['why'], LeftList['lines']>>,
  more: Partial<LeftList> = {},
): LeftBehind => ({
  days: 30,
  lists: leftWhys.map(why => {
    const lines = lists[why] ?? []
    return { why, lines, count: lines.length, bytes: lines.reduce((sum, { bytes }) => sum + bytes, 0), ...more }
  }),
})

test('each list leads to what is done about it, and an empty one says that it is', () => {
  shown(
    <LeftLists
      left={left({
        unseen: [line('old-scans')],
        'not growing': [line('ledger', { since: '2026-03-01T00:00:00Z' })],
        'without a rule': [line('photos', { snapshotName: 'before-move' })],
      })}
    />,
  )
  expect(screen.getByRole('link', { name: 'Remove it' }).getAttribute('href')).toBe(
    '/provision?sel=of-old-scans&draft=remove-volume',
  )
  expect(screen.getByRole('link', { name: 'Make it thin' }).getAttribute('href')).toContain('draft=convert-volume')
  expect(screen.getByRole('link', { name: 'Remove snapshots' }).getAttribute('href')).toContain('of-photos')
  expect(screen.getByText('photos · before-move')).toBeTruthy()
  const row = screen.getByText('ledger').closest('tr')
  expect(within(row as HTMLElement).getByText('1 March 2026')).toBeTruthy()
  expect(
    within(screen.getByText('old-scans').closest('tr') as HTMLElement).getByText('as long as is known'),
  ).toBeTruthy()
  expect(screen.getByText('Every volume that somebody sees is asked for something.')).toBeTruthy()
})

test('the sentence adds up what may come back, and a list that shows only the largest says so', () => {
  expect(leftSentence(left({}))).toEqual({
    first: 'Nothing is left behind.',
    then: 'All that takes space has served somebody within 30 days.',
  })
  const some = left({ unseen: [line('a'), line('b')], idle: [line('c')] })
  expect(leftSentence(some)).toEqual({
    first: '3 TiB may have been left behind.',
    then: 'Two volumes that nobody sees, one that nobody asks.',
  })
  shown(<LeftLists left={left({ idle: [line('a')] }, { count: 1200, bytes: 2 ** 50 })} />)
  expect(screen.getAllByText('1,200 with 1 PiB, the largest 1 shown')).toHaveLength(1)
})

test('what counts is said with each sum, and the days can be chosen', () => {
  shown(<WhatCounts left={left({ unseen: [line('a')] })} />)
  expect(screen.getByText('1 TiB')).toBeTruthy()
  expect(screen.getByRole('link', { name: '30 days' }).getAttribute('aria-current')).toBe('true')
  expect(screen.getByRole('link', { name: '90 days' }).getAttribute('href')).toBe('/watch/left-behind?days=90')
})
