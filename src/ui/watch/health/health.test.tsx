/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import { readBoard } from '@/core/board'
import { sampleId } from '@/core/estate/testing/samples'
import type { HealthPage, SourceLine, WornLine } from '@/core/views'
import { shown, wordsOf } from '../../testing/browser'
import { Drives, healthSentence, Sensors, Sources } from '.'
import { refusedWords, wearOutWords } from './healthWords'

const drive = (number: number, more: Partial<WornLine> = {}): WornLine => ({
  ...{ id: sampleId(number), name: `drive ${number}`, serial: `SER${number}`, model: 'M', systemName: 'heron' },
  ...{ poolId: sampleId(9), poolName: 'fast', state: 'fine', wearRatio: 0.25, powerOnHours: 365 * 24 },
  ...{ correctedErrors: null, lostErrors: null, ...more },
})
const source = (more: Partial<SourceLine> = {}): SourceLine => ({
  ...{ id: sampleId(1), name: 'heron', reach: 'answering', seenAt: '2026-05-04T10:00:00.000Z', refused: {} },
  ...{ levelsUntil: '2026-05-04T10:00:00.000Z', countersUntil: null, gapSince: null, ...more },
})
const page = (more: Partial<HealthPage> = {}): HealthPage => ({
  ...{ findings: [], sources: [source()], drives: [drive(1)], sensors: [], sensorCount: 12, driveCount: 24, ...more },
})

test('what calls for work comes first, and what is watched is counted', () => {
  expect(healthSentence(page())).toEqual({
    first: 'Nothing calls for work.',
    then: '24 drives and twelve sensors are watched.',
  })
  const finding = { key: 'k', gravity: 'now', title: 't' } as never
  const record = { finding, systemId: 's', since: '', exception: null }
  const hurt = page({
    findings: [record],
    drives: [drive(1, { state: 'failed' })],
    sources: [source({ reach: 'not answering' })],
  })
  expect(healthSentence(hurt).first).toBe(
    'One finding calls for work at once, one system is silent, one drive is not well.',
  )
})

test('when a drive is worn out is told in days or years, and not where it does not say', () => {
  expect(wearOutWords(drive(1))).toBe('in 3.0 years')
  expect(wearOutWords(drive(1, { wearRatio: 0.9 }))).toBe('in 40 days')
  expect(wearOutWords(drive(1, { wearRatio: 1 }))).toBe('worn out')
  expect(wearOutWords(drive(1, { wearRatio: 0.02, powerOnHours: 30_000 }))).toBe('beyond 10 years')
  expect(wearOutWords(drive(1, { wearRatio: null }))).toBe('')
})

test('drives lead to themselves, with their state in a word', () => {
  const erring = [
    { finding: { key: `drive-errors/${sampleId(3)}` } as never, systemId: 's', since: '', exception: null },
  ]
  shown(<Drives drives={[drive(1, { state: 'failed' }), drive(2, { poolName: null }), drive(3)]} findings={erring} />)
  const rows = screen
    .getAllByRole('row')
    .slice(1)
    .map(each => wordsOf(each))
  expect(rows[0]).toContain('failed')
  expect(rows[1]).toContain('heron, drive 2')
  expect([rows[1]?.includes('in order'), rows[2]?.includes('errs more')]).toEqual([true, true])
  expect(screen.getByRole('link', { name: 'SER1' }).getAttribute('href')).toBe(`/build/drives?drive=${sampleId(1)}`)
})

test('what a drive has counted of its errors leads to their course, beside how fast its pool answers', () => {
  shown(
    <Drives
      findings={[]}
      drives={[
        drive(1, { correctedErrors: 1234, lostErrors: 2 }),
        drive(2, { correctedErrors: 7, poolId: null }),
        drive(3, { correctedErrors: 0, lostErrors: 0 }),
      ]}
    />,
  )
  const course = (name: string) => {
    const href = screen.getByRole('link', { name }).getAttribute('href') ?? ''
    return readBoard(Object.fromEntries(new URLSearchParams(href.replace(/^.*\?/, ''))))
  }
  expect(course('1,234, 2 for good').lanes).toMatchObject([
    { metric: 'errors', objectId: sampleId(1) },
    { metric: 'latency', objectId: sampleId(9) },
  ])
  expect(course('7').lanes).toHaveLength(1)
  expect(wordsOf(screen.getAllByRole('row')[3] as HTMLElement)).toContain('none')
})

test('a sensor stands with its caution, and says when it is past it', () => {
  const sensor = (name: string, reading: number, cautionAt: number | null) => ({
    ...{ systemId: sampleId(1), systemName: 'heron', unit: 'Cel', name, reading, cautionAt },
  })
  shown(
    <Sensors
      sensors={[sensor('hot', 61, 60), sensor('warm', 57, 60), sensor('cool', 20, 60), sensor('odd', 1, null)]}
    />,
  )
  expect(
    screen
      .getAllByRole('row')
      .slice(1)
      .map(each => wordsOf(each).replace(/\s+/g, ' ')),
  ).toEqual([
    expect.stringContaining('past its caution'),
    expect.stringContaining('near its caution'),
    expect.stringContaining('in order'),
    expect.stringContaining('no caution stated'),
  ])
})

test('what is known of a system says until when, what was not kept and why, and whether something is missing', () => {
  expect(refusedWords({ refused: { 'is below zero': 1200, 'is not a number': 3 } })).toBe(
    '1,200 is below zero, 3 is not a number',
  )
  shown(
    <Sources
      sources={[
        source({ refused: { 'is from the future': 2 } }),
        source({ id: sampleId(2), name: 'bittern', gapSince: '2026-05-04T09:00:00.000Z' }),
        source({ id: sampleId(3), name: 'godwit', reach: 'not answering', seenAt: null }),
      ]}
    />,
  )
  const rows = screen
    .getAllByRole('row')
    .slice(1)
    .map(each => wordsOf(each))
  expect(rows[0]).toContain('2 is from the future')
  expect(rows[0]).toContain('not stated')
  expect(rows[1]).toContain('a gap is being filled')
  expect(rows[2]).toContain('never')
  expect(rows[2]).toContain('silent')
})
