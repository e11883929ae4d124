'use client'
import type { SpanMean, VolumeLoad } from '@/core/views'
import { CourseCharts, type CourseRow } from '../../drawings/course'
import { latencyWords, requestWords, throughputWords } from './loadWords'

const words = { latency: latencyWords, requests: requestWords, throughput: throughputWords }

/** A volume's last week: how fast it answers beside its pool, and what is asked of it. */
export function VolumeCourse({ load }: { readonly load: Pick<VolumeLoad, 'line' | 'course' | 'poolCourse'> }) {
  const { line, course, poolCourse } = load
  const of = (all: readonly SpanMean[], field: 'latencySeconds' | 'requestsPerSecond' | 'bytesPerSecond') =>
    all.map(each => each[field])
  const rows: readonly CourseRow[] = [
    {
      name: 'Latency',
      unit: 'latency',
      values: of(course, 'latencySeconds'),
      beside: { name: line.poolName, values: of(poolCourse, 'latencySeconds') },
      ...(line.promisedSeconds === null
        ? {}
        : { limit: { words: `promised: ${latencyWords(line.promisedSeconds)}`, value: line.promisedSeconds } }),
    },
    { name: 'Requests', unit: 'requests', values: of(course, 'requestsPerSecond') },
    { name: 'Throughput', unit: 'throughput', values: of(course, 'bytesPerSecond') },
  ]
  return (
    <CourseCharts
      title={line.name}
      about="hourly means of a week"
      times={course.map(({ at }) => at)}
      rows={rows}
      words={(unit, value) => words[unit](value)}
    />
  )
}
