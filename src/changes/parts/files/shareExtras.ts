import type { Share } from '@/core/estate'
import type { ChangePorts, ShareLimitsWanted } from '@/ports'
import type { Evidence } from '../../ChangeKind'
import { NotKnown } from '../known'
import type { Outlined } from '../outline'
import { standsAsAsked } from '../standsAsAsked'

export type ShareNotes = Pick<Share, 'labels' | 'warnPercent'>

/** What a share is given once it is exported. */
export type ExtraStep =
  | Readonly<{ step: 'limit'; systemId: string; name: string; limits: ShareLimitsWanted }>
  | Readonly<{ step: 'show'; systemId: string; name: string }>
  | Readonly<{ step: 'note'; systemId: string; notes: ShareNotes }>

export interface ShareExtras {
  readonly limits: ShareLimitsWanted
  readonly showsEarlier: boolean
  readonly notes: ShareNotes
}

/** One step for each that is asked for. */
export function extraSteps(
  systemId: string,
  name: string,
  { limits, showsEarlier, notes }: ShareExtras,
): Outlined<ExtraStep>[] {
  const isLimited = limits.quotas.length + limits.fileRules.length > 0
  const isNoted = notes.labels.length > 0 || notes.warnPercent !== null
  return [
    ...(isLimited
      ? [
          {
            words: 'Set its quotas and kinds of files',
            seconds: 0.4,
            step: { step: 'limit' as const, systemId, name, limits },
          },
        ]
      : []),
    ...(showsEarlier
      ? [{ words: 'Show its snapshots to its hosts', seconds: 0.4, step: { step: 'show' as const, systemId, name } }]
      : []),
    ...(isNoted
      ? [{ words: 'Keep what is said of it', seconds: 0.05, step: { step: 'note' as const, systemId, notes } }]
      : []),
  ]
}

const isAt = (share: Share, systemId: string, locator: string) =>
  share.systemId === systemId && share.locator === locator

/** @param locator of the share @throws {NotKnown} where the share has not been read yet that something is to be said of */
export async function runExtra(step: ExtraStep, locator: string, ports: ChangePorts): Promise<void> {
  if (step.step === 'note') {
    const share = (await ports.estate()).shares.find(each => isAt(each, step.systemId, locator))
    if (share === undefined) throw new NotKnown('the share that it has exported')
    return ports.records.noteShare(share.id, step.notes)
  }
  const shares = await ports.of(step.systemId, 'shares')
  if (step.step === 'limit') await shares.setLimits(locator, step.name, step.limits)
  else await shares.showSnapshots(locator, step.name, true)
}

/** That the system states, and the records hold, what was asked for. */
export async function provenExtra(step: ExtraStep, locator: string, ports: ChangePorts): Promise<Evidence> {
  if (step.step === 'note') {
    const kept = (await ports.estate()).shares.find(each => isAt(each, step.systemId, locator))
    return standsAsAsked('It has the labels and the warning that were asked for', kept, step.notes)
  }
  const stated = await (await ports.of(step.systemId, 'shares')).at(locator)
  if (step.step === 'limit')
    return standsAsAsked('The system states its limits as they were asked for', stated, step.limits)
  return {
    claim: 'The system states that its snapshots are shown',
    holds: stated?.snapshotDirectory?.isShown === true,
    measured: { directory: stated?.snapshotDirectory?.name ?? 'none' },
  }
}
