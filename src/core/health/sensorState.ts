/** A measured value of a system's surroundings, with the value from which its maker wants to be told. */
export interface Sensed {
  readonly reading: number
  readonly cautionAt: number | null
}

/** From this part of the way to its caution on, a sensor is worth a look. */
const nearRatio = 0.92

/** How a sensor stands; a system that states no caution leaves it open. */
export function sensorState({ reading, cautionAt }: Sensed): 'fine' | 'near' | 'past' | 'not known' {
  if (!Number.isFinite(reading) || cautionAt === null) return 'not known'
  if (reading >= cautionAt) return 'past'
  return cautionAt > 0 && reading >= cautionAt * nearRatio ? 'near' : 'fine'
}
