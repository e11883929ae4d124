import type { Samples } from './packedSamples'

/** One measured value. */
export interface Sample {
  /** Milliseconds since 1970. */
  readonly at: number
  readonly value: number
}

/**
 * Samples that are known and others that have come since, in any order, as one course in the order of time. Of several of one instant
 * the one that came last counts.
 */
export function mergeSamples(known: Samples, come: readonly Sample[]): Samples {
  const fresh = [...come].sort((a, b) => a.at - b.at)
  const times: number[] = []
  const values: number[] = []
  const put = (at: number, value: number) => {
    if (times.at(-1) === at) values[values.length - 1] = value
    else {
      times.push(at)
      values.push(value)
    }
  }
  let next = 0
  for (let index = 0; index < known.times.length; index += 1) {
    const at = known.times[index] ?? 0
    for (; (fresh[next]?.at ?? Number.POSITIVE_INFINITY) < at; next += 1) putSample(fresh[next])
    put(at, known.values[index] ?? Number.NaN)
  }
  for (; next < fresh.length; next += 1) putSample(fresh[next])
  return { times, values }

  function putSample(sample: Sample | undefined) {
    if (sample !== undefined) put(sample.at, sample.value)
  }
}
