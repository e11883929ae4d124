import { limitsInWords, type Volume, type VolumeLimits } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { formatBytes, parseBytes } from '@/core/units'
import type { ChangePorts } from '@/ports'
import type { Facts } from '../ChangeKind'
import { must, rule } from './checks'
import type { Outlined } from './outline'

/** Sets what a volume may be asked for. */
export type LimitStep = Readonly<{
  step: 'limit'
  systemId: string
  locator: string
  naa: string
  from: VolumeLimits
  to: VolumeLimits
}>

/** Below that a host would not start from it in a day. */
const leastRequests = 10
const leastBytes = 64n * 1024n
export const noLimits: VolumeLimits = { requestsPerSecond: null, bytesPerSecond: null }

interface Asked {
  readonly mostRequests: number | null
  readonly mostThroughput: string
}

/** What is asked for, and the checks that say what cannot be read. */
export function wantedLimits({ mostRequests, mostThroughput }: Asked): {
  readonly limits: VolumeLimits
  readonly checks: readonly PlanCheck[]
} {
  const parsed = mostThroughput.trim() === '' ? undefined : parseBytes(mostThroughput.replace(/\s*\/\s*s$/, ''))
  const bytes = parsed !== undefined && 'bytes' in parsed ? parsed.bytes : undefined
  const limits = { requestsPerSecond: mostRequests, bytesPerSecond: bytes === undefined ? null : Number(bytes) }
  return {
    limits,
    checks: [
      rule(
        'requests',
        mostRequests === null || (Number.isInteger(mostRequests) && mostRequests >= leastRequests),
        mostRequests === null
          ? 'Its requests are not limited.'
          : `${mostRequests.toLocaleString('en')} requests a second.`,
        `A limit is a whole number of at least ${leastRequests} requests a second.`,
        { field: 'mostRequests' },
      ),
      ...(parsed !== undefined && !('bytes' in parsed)
        ? [must(parsed.rule, false, parsed.why, { field: 'mostThroughput' })]
        : [
            rule(
              'throughput',
              bytes === undefined || bytes >= leastBytes,
              bytes === undefined ? 'Its throughput is not limited.' : `${formatBytes(bytes)} a second.`,
              `A limit is at least ${formatBytes(leastBytes)} a second.`,
              { field: 'mostThroughput' },
            ),
          ]),
    ],
  }
}

export const sameLimits = (a: VolumeLimits, b: VolumeLimits) =>
  a.requestsPerSecond === b.requestsPerSecond && a.bytesPerSecond === b.bytesPerSecond

export const isLifted = (limits: VolumeLimits): boolean => sameLimits(limits, noLimits)

export const limitStep = ({ systemId, locator, naa, name, limits }: Volume, to: VolumeLimits): Outlined<LimitStep> => ({
  step: { step: 'limit', systemId, locator, naa, from: limits ?? noLimits, to },
  words: isLifted(to) ? `Lift the limit on ${name}` : `Let ${name} be asked for ${limitsInWords(to)} a second at most`,
  seconds: 0.3,
})

export async function setLimit({ systemId, locator, naa, to }: LimitStep, ports: ChangePorts): Promise<Facts> {
  await (await ports.of(systemId, 'volumes')).limit(locator, naa, to)
  return { systemId }
}

export async function resetLimit({ systemId, locator, naa, from }: LimitStep, ports: ChangePorts): Promise<undefined> {
  await (await ports.of(systemId, 'volumes')).limit(locator, naa, from)
}
