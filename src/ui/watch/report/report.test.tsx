/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { reportRows, type MonthReport } from '@/core/views'
import { shown, wordsOf } from '../../testing/browser'
import { monthWords, ReportSheet } from '.'

const tebi = 2 ** 40
const pool = (name: string, first: number | null, last: number | null) => ({
  id: name,
  name,
  systemName: 'heron',
  capacityBytes: 10 * tebi,
  firstBytes: first === null ? null : first * tebi,
  lastBytes: last === null ? null : last * tebi,
  mostBytes: last === null ? null : last * tebi,
  daysToLimit: last === 8 ? 21 : null,
})
const report: MonthReport = {
  month: '2026-04',
  isOver: true,
  pools: [pool('shrinks', 5, 4), pool('fills', 7, 8), pool('unknown', null, null)],
  classes: [
    { id: 'a', name: 'Nothing lost', volumes: 3, promisedSeconds: 0.002, hours: 1000, hoursWithin: 990 },
    { id: 'b', name: 'Working files', volumes: 2, promisedSeconds: 0.004, hours: 1000, hoursWithin: 900 },
    { id: 'c', name: 'New', volumes: 1, promisedSeconds: 0.004, hours: 0, hoursWithin: 0 },
  ],
  snapshots: [
    { id: 'a', name: 'Nothing lost', rule: 'every hour', due: 2160, taken: 2160 },
    { id: 'd', name: 'Sometimes', rule: 'every day', due: 60, taken: 50 },
  ],
  promises: [
    { id: 'a', name: 'Nothing lost', promised: 'survives any 2 losses', hours: 2160, hoursKept: 2160 },
    { id: 'a', name: 'Nothing lost', promised: 'a copy elsewhere', hours: 1000, hoursKept: 990 },
  ],
  changes: { proven: 12, others: 1 },
  findings: { begun: 5, cleared: 4, standing: 2 },
}

test('pools stand by how full they are at the end of the month, with what they grew', () => {
  shown(<ReportSheet report={report} />)
  const rows = screen.getAllByRole('row').map(wordsOf)
  const at = (name: string) => rows.findIndex(words => words.startsWith(name))
  expect(at('fills')).toBeLessThan(at('shrinks'))
  expect(rows[at('fills')]).toContain('+1 TiB')
  expect(rows[at('fills')]).toContain('80%')
  expect(rows[at('fills')]).toContain('21 days')
  expect(rows[at('shrinks')]).toContain('−1 TiB')
})

test('a promise is kept where 95 of 100 hours were within it; what was not measured says so', () => {
  shown(<ReportSheet report={report} />)
  const row = (name: string) =>
    wordsOf(screen.getAllByRole('row').find(each => wordsOf(each).startsWith(name)) as HTMLElement)
  expect(row('Nothing lost')).toContain('[fine] 99.00%')
  expect(row('Working files')).toContain('[now] 90.00%')
  expect(row('New')).toContain('[unknown] not measured')
})

test('a promise of snapshots is told by the moments at which one was due, with those that were missed', () => {
  shown(<ReportSheet report={report} />)
  const rows = screen.getAllByRole('row').map(wordsOf)
  expect(rows.find(words => words.includes('every hour'))).toContain('2,1600[fine] 100.00%')
  expect(rows.find(words => words.startsWith('Sometimes'))).toContain('6010[now] 83.33%')
})

test('the table gives whole bytes, and leaves empty what is not known', () => {
  const [, , fills, unknown] = reportRows(report)
  expect(fills).toEqual([
    'fills',
    'heron',
    `${10 * tebi}`,
    `${7 * tebi}`,
    `${8 * tebi}`,
    `${8 * tebi}`,
    `${tebi}`,
    '80.0',
    '21',
  ])
  expect(unknown?.slice(3)).toEqual(['', '', '', '', '', ''])
  expect(monthWords('2026-04')).toBe('April 2026')
})

test('what is promised at any moment is told by the hours of volumes in which it was not kept', () => {
  shown(<ReportSheet report={report} />)
  const rows = screen.getAllByRole('row').map(wordsOf)
  expect(rows.find(words => words.includes('any 2 losses'))).toContain('2,1600[fine] 100.00%')
  expect(rows.find(words => words.includes('a copy elsewhere'))).toContain('1,00010[soon] 99.00%')
})
