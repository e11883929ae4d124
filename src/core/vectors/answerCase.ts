import { spreadDurability, type SpreadRisk } from '../clusters'
import { domainLayout, raidLayout, type FailureDomain, type RaidScheme, type SpreadScheme } from '../layout'
import { lossProbability, meanHoursToLoss, poolLossProbability, yearHours } from '../durability'
import { evacuation, type EvacuationMode } from '../placement'
import { score, type ScoredJob } from '../transfer'
import { access } from './accessCases'
import { UnknownSubject } from './errors'
import { forecast } from './forecastCases'
import { missRatio, queueing, syncLatency } from './performanceCases'
import { retention, schedule, snapshots } from './snapshotCases'

/** Bytes and counts leave as decimal text, as they stand in the files of worked cases. */
function asWorkedCase(value: unknown): unknown {
  if (typeof value === 'bigint') return value.toString()
  if (Array.isArray(value)) return value.map(asWorkedCase)
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(Object.entries(value).map(([key, entry]) => [key, asWorkedCase(entry)]))
}

interface RaidInput {
  readonly kind: 'parity' | 'mirror'
  readonly driveBytes: readonly string[]
  readonly parityDrives?: number
  readonly copies?: number
  readonly maxGroupDrives: number
  readonly spares: number
}

function raid(input: RaidInput): unknown {
  const scheme: RaidScheme =
    input.kind === 'parity'
      ? { kind: 'parity', parityDrives: input.parityDrives ?? 0 }
      : { kind: 'mirror', copies: input.copies ?? 0 }
  return raidLayout(input.driveBytes.map(BigInt), scheme, input.maxGroupDrives, input.spares)
}

interface DomainsInput {
  readonly domains: readonly {
    readonly id: string
    readonly drives: readonly { readonly bytes: string; readonly count: number }[]
  }[]
  readonly scheme: SpreadScheme
  readonly chunkBytes: string
}

function domains(input: DomainsInput): unknown {
  const held: FailureDomain[] = input.domains.map(({ id, drives }) => ({
    id,
    drives: drives.map(({ bytes, count }) => ({ bytes: BigInt(bytes), count })),
  }))
  return domainLayout(held, input.scheme, BigInt(input.chunkBytes))
}

interface DurabilityInput {
  readonly drives: number
  readonly parityDrives: number
  readonly annualFailureRate: number
  readonly rebuildHours: number
  readonly repair: 'serial' | 'parallel'
  readonly bitErrorRate: number
  readonly bitsReadToRebuild: string
  readonly groups: number
}

function durability({ groups, bitsReadToRebuild, ...input }: DurabilityInput): unknown {
  const group = { ...input, bitsReadToRebuild: BigInt(bitsReadToRebuild) }
  const groupLossProbability = {
    years1: lossProbability(group, yearHours),
    years5: lossProbability(group, 5 * yearHours),
  }
  return {
    mttdlHours: meanHoursToLoss(group),
    groupLossProbability,
    poolLossProbability: {
      years1: poolLossProbability(groupLossProbability.years1, groups),
      years5: poolLossProbability(groupLossProbability.years5, groups),
    },
  }
}

interface EvacuationInput {
  readonly mode: EvacuationMode
  readonly piecesToRead: number
  readonly pieceBytes: string
  readonly drives: readonly {
    readonly id: string
    readonly node: string
    readonly capacityBytes: string
    readonly limitBytes: string
  }[]
  readonly leavingDrives: readonly number[]
  readonly leavingNodes: readonly string[]
  readonly stripes: readonly (readonly number[])[]
}

function evacuated({ pieceBytes, drives, ...input }: EvacuationInput): unknown {
  const answer = evacuation({
    ...input,
    pieceBytes: BigInt(pieceBytes),
    drives: drives.map(drive => ({
      ...drive,
      capacityBytes: BigInt(drive.capacityBytes),
      limitBytes: BigInt(drive.limitBytes),
    })),
  })
  if (!answer.feasible) return answer
  return { ...answer, leastMovedBytes: answer.movedBytes, leastWorstFill: answer.worstFill }
}

function clusterDurability({
  driveBytes,
  ...risk
}: Omit<SpreadRisk, 'driveBytes'> & { readonly driveBytes: string }): unknown {
  return spreadDurability({ ...risk, driveBytes: Number(driveBytes) })
}

const answerBySubject: Readonly<Record<string, (input: never) => unknown>> = {
  'layout-raid': raid,
  'layout-domains': domains,
  durability,
  'cluster-durability': clusterDurability,
  evacuation: evacuated,
  access,
  schedule,
  retention,
  snapshots,
  forecast,
  queueing,
  'sync-latency': syncLatency,
  missratio: missRatio,
  'transfer-scoring': ({ jobs }: { readonly jobs: readonly ScoredJob[] }) => score(jobs),
}

/** Whether core computes a subject. */
export const isKnownSubject = (subject: string) => subject in answerBySubject

/** The one public entry by which worked cases question core. @throws {UnknownSubject} for a subject that core does not compute */
export function answerCase(subject: string, input: unknown): unknown {
  const answer = answerBySubject[subject]
  if (answer === undefined) throw new UnknownSubject(subject)
  return asWorkedCase(answer(input as never)) // the files' own test fails where an input has another shape
}
