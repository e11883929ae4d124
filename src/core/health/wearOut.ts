const hoursOfDay = 24
/** Less says nothing of how fast a drive wears (hours, part of its life). */
const leastHours = 500
const leastWear = 0.01

/**
 * When a drive's flash is worn out if it goes on as it has so far: what is left of its life by what it has used in its hours.
 * @param wearRatio of its life used (0 to 1) @returns days; null where too little is known, 0 where it is worn out
 */
export function daysToWearOut(wearRatio: number | null, powerOnHours: number | null): number | null {
  if (wearRatio === null || powerOnHours === null) return null
  if (wearRatio >= 1) return 0
  if (powerOnHours < leastHours || wearRatio < leastWear) return null
  return Math.floor(((1 - wearRatio) / wearRatio) * (powerOnHours / hoursOfDay))
}
