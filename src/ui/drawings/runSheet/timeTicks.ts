const minute = 60
const hour = 3600
const day = 86_400
const steps = [
  1,
  2,
  5,
  10,
  15,
  30,
  minute,
  2 * minute,
  5 * minute,
  10 * minute,
  15 * minute,
  30 * minute,
  hour,
  2 * hour,
  3 * hour,
  6 * hour,
  12 * hour,
  day,
  2 * day,
  7 * day,
  30 * day,
]

/** Round moments for an axis of time, at most `most` beside the start; in seconds. */
export function timeTicks(spanSeconds: number, most: number): number[] {
  const step = steps.find(each => spanSeconds / each <= most) ?? Math.ceil(spanSeconds / most)
  return Array.from({ length: Math.floor(spanSeconds / step) + 1 }, (_, index) => index * step)
}
