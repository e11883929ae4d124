const minuteSeconds = 60
const hourSeconds = 3600
const daySeconds = 86_400

/** A length of time in at most two units: `2 h 50 min`, `45 s`, `3 days 4 h`. */
export function formatSeconds(seconds: number): string {
  if (!Number.isFinite(seconds)) return 'unknown'
  if (seconds < 1) return 'under 1 s'
  if (seconds < 90) return `${Math.round(seconds)} s`
  if (seconds < 90 * minuteSeconds) return `${Math.round(seconds / minuteSeconds)} min`
  if (seconds < 2 * daySeconds) return two(Math.round(seconds / minuteSeconds), 60, 'h', 'min')
  return two(Math.round(seconds / hourSeconds), 24, 'days', 'h')
}

function two(small: number, perLarge: number, largeName: string, smallName: string): string {
  const large = Math.floor(small / perLarge)
  const rest = small % perLarge
  return rest === 0 ? `${large} ${largeName}` : `${large} ${largeName} ${rest} ${smallName}`
}

/** A range as it is read aloud: `2 h 50 min to 4 h 10 min`; one value where both ends read alike. */
export function formatSecondsRange(fromSeconds: number, toSeconds: number): string {
  const from = formatSeconds(fromSeconds)
  const to = formatSeconds(toSeconds)
  return from === to ? from : `${from} to ${to}`
}
