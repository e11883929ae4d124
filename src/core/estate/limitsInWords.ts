import { formatBytes } from '../units'
import type { VolumeLimits } from './schemas'

/** What a volume may be asked for a second, in words. */
export const limitsInWords = ({ requestsPerSecond, bytesPerSecond }: VolumeLimits): string =>
  [
    ...(requestsPerSecond === null ? [] : [`${requestsPerSecond.toLocaleString('en')} requests`]),
    ...(bytesPerSecond === null ? [] : [formatBytes(BigInt(Math.round(bytesPerSecond)))]),
  ].join(' and ') || 'no limit'
