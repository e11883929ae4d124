/** @jest-environment jsdom */
import { screen } from '@testing-library/react'
import type { ClassKept } from '@/core/views'
import { sampleClass, sampleId } from '@/core/estate/testing/samples'
import { shown, wordsOf } from '../../testing/browser'
import { ClassTable, KeptBars, keptInWords, keptWords, PromiseLines, PromiseTable } from '.'

test('classes stand with what they promise; what is not promised is a dash', () => {
  const bare = sampleClass({
    id: sampleId(81),
    name: 'Scratch',
    lossesSurvived: null,
    media: 'any',
    latencyMilliseconds: null,
    headroomRatio: null,
    snapshotRule: null,
    retention: {},
  })
  const rows = [
    { serviceClass: sampleClass(), volumes: 1204, size: `${2n * 1024n ** 4n}` },
    { serviceClass: bare, volumes: 0, size: '0' },
  ]
  shown(<ClassTable rows={rows} selected={sampleId(81)} />)
  const [, first, second] = screen.getAllByRole('row')
  expect(wordsOf(first)).toBe('Nothing lost2 lossesSSD2 ms20%every hourkeeps 2 last, 1 daily1,2042 TiB')
  expect(wordsOf(second)).toBe('Scratch—any———00 B')
  expect(second?.getAttribute('data-selected')).toBe('true')
  expect(keptInWords(bare)).toBeNull()
})

test('each promise stands with its state and the measurement behind it', () => {
  const promises = [
    {
      promise: 'resilience',
      promised: 'survives any 2 losses',
      measured: 'heron survives any 2 losses',
      state: 'kept',
    },
    { promise: 'latency', promised: 'within 2 ms', measured: 'no system states it', state: 'not measured' },
    { promise: 'headroom', promised: '20% stays free', measured: '7% is free', state: 'broken' },
  ] as const
  shown(<PromiseLines promises={promises} />)
  expect(screen.getAllByRole('row').map(wordsOf)).toEqual([
    'survives any 2 lossesheron survives any 2 losses[fine] kept',
    'within 2 msno system states it[unknown] not measured',
    '20% stays free7% is free[now] broken',
  ])
  expect(keptWords(promises)).toBe('1 of 2 kept, 1 not measured')
})

test('how promises are kept says the gravest, and for how many; a class of nothing is left out', () => {
  const line = (counts: object) => ({
    promise: 'headroom' as const,
    promised: '20% stays free',
    counts: { kept: 0, 'at risk': 0, broken: 0, 'not measured': 0, ...counts },
  })
  const classes = [
    { id: 'a', name: 'Nothing lost', volumes: 5, promises: [line({ broken: 1, kept: 4 }), line({ kept: 5 })] },
    { id: 'b', name: 'Empty', volumes: 0, promises: [line({})] },
  ]
  shown(<KeptBars classes={classes.map(each => ({ ...each, promises: each.promises.slice(0, 1) }))} />)
  expect(screen.getAllByRole('row').map(wordsOf)).toEqual(['Nothing lost20% stays free[now] 1 broken'])
  expect(screen.getByRole('img').getAttribute('aria-label')).toBe('1 broken, 4 kept')
})

test('classes stand by what they promise: the gravest of each, for how many where it is wrong, and no column for nobody', () => {
  const line = (promise: 'latency' | 'copy' | 'headroom', counts: object) => ({
    ...{ promise, promised: 'as said' },
    counts: { kept: 0, 'at risk': 0, broken: 0, 'not measured': 0, ...counts },
  })
  const classes = [
    { id: 'a', name: 'Archive', volumes: 6, promises: [line('latency', { kept: 6 })] },
    {
      ...{ id: 'b', name: 'Working files', volumes: 1200 },
      promises: [line('headroom', { kept: 900, 'at risk': 300 }), line('latency', { kept: 1, broken: 1199 })],
    },
  ]
  shown(<PromiseTable classes={classes} lookedAt="2026-05-04T08:00:00.000Z" />)
  expect(screen.getAllByRole('row').map(wordsOf)).toEqual([
    'Service classVolumesLatencyHeadroom',
    'Working files1,200[now] 1,199 broken[soon] 300 at risk',
    'Archive6[fine] keptno promise',
  ])
  expect(screen.getByRole('heading').textContent).toMatch(
    /1,206 volumes in two service classes, looked at Mon.* 08:00 UTC/,
  )
  const many = Array.from({ length: 40 }, (_, id) => ({ ...classes[0], id: `${id}`, name: `c${id}` }) as ClassKept)
  shown(<PromiseTable classes={[...many, ...classes]} lookedAt="2026-05-04T08:00:00.000Z" />)
  expect(screen.getByRole('link', { name: 'All 42 classes' })).toBeTruthy()
  expect(screen.getAllByRole('link', { name: 'Working files' })).toHaveLength(2)
})
