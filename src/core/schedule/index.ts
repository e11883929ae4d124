export { nextAfter, occurrences, type Recurrence } from './occurrences'
export { mostADay, ruleInWords, scheduleTrouble } from './scheduleTrouble'
export { isQuiet, smeared, type QuietHours } from './smeared'
export { instantOf, isZone, offsetAt } from './zoneOffsets'
