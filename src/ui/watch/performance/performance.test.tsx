/** @jest-environment jsdom */
import { fireEvent, screen } from '@testing-library/react'
import { sampleId } from '@/core/estate/testing/samples'
import type { SlowLine, VolumeLoad } from '@/core/views'
import { Strata } from '../../drawings/strata'
import { shown, wordsOf } from '../../testing/browser'
import { latencyWords, Loud, performanceSentence, Slowest, VolumeCourse } from '.'

const hour = 3_600_000
const monday = Date.UTC(2026, 4, 4)
const line = (number: number, more: Partial<SlowLine> = {}): SlowLine => ({
  ...{ id: sampleId(number), name: `volume-${number}`, poolId: sampleId(90), poolName: 'bulk', className: null },
  ...{ promisedSeconds: null, p95Seconds: 0.004, requestsPerSecond: 120, bytesPerSecond: 2 ** 20, ...more },
})
const mean = (index: number, latencySeconds: number | null, hitRatio: number | null = 0.625) => ({
  ...{ at: monday + index * hour, latencySeconds, requestsPerSecond: 10 + index, bytesPerSecond: 2 ** 20 },
  ...{ writesPerSecond: 2, hitRatio },
})
const load = (more: Partial<VolumeLoad> = {}): VolumeLoad => ({
  line: line(1, { promisedSeconds: 0.005, className: 'Working files' }),
  course: [mean(0, 0.004), mean(1, null), mean(2, 0.009)],
  poolCourse: [mean(0, 0.002), mean(1, 0.002), mean(2, 0.003)],
  strata: Array.from({ length: 7 }, () => Array.from({ length: 24 }, () => null)),
  lookedAt: monday + 11 * hour,
  loud: {
    ...{ utilization: 1.08, responseSeconds: null, headroomRatio: -0.5 },
    volumes: [
      { id: sampleId(2), share: 0.59, utilizationWithout: 0.44, othersGainSeconds: null },
      { id: sampleId(1), share: 0.41, utilizationWithout: 0.64, othersGainSeconds: null },
    ],
    names: { [sampleId(1)]: 'volume-1', [sampleId(2)]: 'derived' },
  },
  ...more,
})

test('times say as much as they know', () =>
  expect([latencyWords(0.00025), latencyWords(0.0123), latencyWords(0.5)]).toEqual(['0.25 ms', '12.3 ms', '500 ms']))

test('each volume stands with its promise, and by how much it misses it', () => {
  shown(
    <Slowest
      lines={[line(1, { p95Seconds: 0.01, promisedSeconds: 0.004 }), line(2, { promisedSeconds: 0.005 }), line(3)]}
      selected={sampleId(1)}
    />,
  )
  const rows = screen
    .getAllByRole('row')
    .slice(1)
    .map(row => wordsOf(row))
  expect(rows[0]).toContain('2.5 × its promise')
  expect(rows[1]).toContain('kept')
  expect(rows[2]).toContain('no promise')
  expect(screen.getByRole('link', { name: 'volume-1' }).getAttribute('href')).toBe(
    `/watch/performance?sel=${sampleId(1)}`,
  )
})

test('the sentence tells promises first, and who is loud; nothing measured is said as such', () => {
  const lines = [line(1, { p95Seconds: 0.01, promisedSeconds: 0.004 })]
  expect(performanceSentence({ lines, total: 9, missing: 1 }, load())).toEqual({
    first: 'One volume answers slower than promised.',
    then: 'Nine volumes are measured; volume-1 misses most, with 10.0 ms or less for nineteen of twenty minutes. derived makes 59% of what bulk was asked for in its worst hour.',
  })
  expect(performanceSentence({ lines: [line(1)], total: 1, missing: 0 }, undefined).first).toBe(
    'Nothing is promised of latency yet.',
  )
  expect(performanceSentence({ lines: [], total: 0, missing: 0 }, undefined).first).toBe(
    'Nothing has been measured yet.',
  )
})

test('who is loud is told with what would be without it', () => {
  const { unmount } = shown(<Loud load={load()} />)
  expect(screen.getByText(/108% busy: they were asked for more than they serve/)).toBeTruthy()
  expect(screen.getByText('Without it they would be 44% busy.')).toBeTruthy()
  expect(screen.getAllByRole('link', { name: 'limit it' })[0]?.getAttribute('href')).toBe(
    `/provision?sel=${sampleId(2)}&draft=limit-volume`,
  )
  expect(screen.getByRole('link', { name: 'derived' }).getAttribute('href')).toBe(
    `/watch/performance?sel=${sampleId(2)}&at=${monday + 11 * hour}`,
  )
  unmount()
  const volumes = [{ id: sampleId(2), share: 1, utilizationWithout: 0, othersGainSeconds: 0.0031 }]
  const calm = { ...load().loud, utilization: 0.3, headroomRatio: 0.66, volumes }
  shown(<Loud load={load({ loud: calm })} />)
  expect(screen.getByText('Without it every other request to the drives takes 3.10 ms less.')).toBeTruthy()
  expect(screen.getByText(/66% more before answers take twice as long/)).toBeTruthy()
})

test('in an hour in which nothing was asked nobody is loud', () => {
  const nobody = { ...load().loud, utilization: 0, headroomRatio: null, volumes: [] }
  shown(<Loud load={load({ loud: nobody })} />)
  expect(screen.getByText('Nothing was asked of it in that hour.')).toBeTruthy()
  expect(screen.queryAllByRole('listitem')).toEqual([])
})

test('one cursor reads all courses at an hour, the pool’s beside the volume’s', () => {
  shown(<VolumeCourse load={load()} />)
  const chart = screen.getByRole('slider')
  const read = (key: string) => {
    fireEvent.keyDown(chart, { key })
    return chart.getAttribute('aria-valuetext')
  }
  expect(read('ArrowLeft')).toBe(
    'Mon, May 4, 01:00: Latency not measured, bulk 2.00 ms, Requests 11.0/s, writes 2.0/s, Throughput 1 MiB/s, ' +
      'Size of a request 93.1 KiB, Requests under way not measured, Reads that the cache answered 63%',
  )
  expect(read('PageUp')).toMatch(/00:00: Latency 4.00 ms.* Requests under way 0.0, /)
  expect(read('Escape')).toBe('Arrow keys read an hour')
})

test('where no system tells of a cache, none is drawn', () => {
  shown(<VolumeCourse load={load({ course: [mean(0, 0.004, null)] })} />)
  expect(screen.getByRole('slider').getAttribute('aria-label')).not.toContain('cache')
})

test('a week says when it is worst; one that was not measured says so', () => {
  const values = Array.from({ length: 7 }, (_, day) =>
    Array.from({ length: 24 }, (_, at) => (day === 0 && at === 11 ? 0.02 : 0.004)),
  )
  const { unmount } = shown(<Strata title="Its week" about="" values={values} words={latencyWords} />)
  expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
    'Its week. Worst on Mon from 11:00, 20.0 ms; best 4.00 ms.',
  )
  unmount()
  shown(<Strata title="Its week" about="" values={load().strata} words={latencyWords} />)
  expect(screen.getByRole('img').getAttribute('aria-label')).toContain('Nothing has been measured yet.')
})
