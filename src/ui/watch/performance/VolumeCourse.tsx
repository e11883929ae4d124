'use client'
import type { SpanMean, VolumeLoad } from '@/core/views'
import { CourseCharts, type CourseRow } from '../../drawings/course'
import { depthWords, latencyWords, partWords, requestWords, sizeWords, throughputWords } from './loadWords'

const words: Readonly<Record<CourseRow['unit'], (value: number) => string>> = {
  latency: latencyWords,
  requests: requestWords,
  throughput: throughputWords,
  depth: depthWords,
  size: sizeWords,
  part: partWords,
}

/** A quantity that follows from two others; null where either is not known. */
const both = (a: number | null, b: number | null, of: (a: number, b: number) => number | null) =>
  a === null || b === null ? null : of(a, b)

/** Requests that are under way at once, on average. Source: Little's law. */
const underWay = (each: SpanMean) => both(each.requestsPerSecond, each.latencySeconds, (rate, time) => rate * time)

const sizeOf = (each: SpanMean) =>
  both(each.bytesPerSecond, each.requestsPerSecond, (bytes, requests) => (requests > 0 ? bytes / requests : null))

/** A volume's last week: how fast it answers beside its pool, what is asked of it, and how that comes about. */
export function VolumeCourse({ load }: { readonly load: Pick<VolumeLoad, 'line' | 'course' | 'poolCourse'> }) {
  const { line, course, poolCourse } = load
  const promised = line.promisedSeconds
  const rows: readonly CourseRow[] = [
    {
      name: 'Latency',
      unit: 'latency',
      values: course.map(each => each.latencySeconds),
      beside: { name: line.poolName, values: poolCourse.map(each => each.latencySeconds) },
      ...(promised === null ? {} : { limit: { words: `promised: ${latencyWords(promised)}`, value: promised } }),
    },
    {
      name: 'Requests',
      unit: 'requests',
      values: course.map(each => each.requestsPerSecond),
      beside: { name: 'writes', values: course.map(each => each.writesPerSecond) },
    },
    { name: 'Throughput', unit: 'throughput', values: course.map(each => each.bytesPerSecond) },
    { name: 'Size of a request', unit: 'size', values: course.map(sizeOf) },
    { name: 'Requests under way', unit: 'depth', values: course.map(underWay) },
    ...(course.some(each => each.hitRatio !== null)
      ? [{ name: 'Reads that the cache answered', unit: 'part' as const, values: course.map(each => each.hitRatio) }]
      : []),
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
