import { kindOf, type KindName } from '../estate'
import { countWords, formatSeconds } from '../units'
import type { Finding } from './Finding'
import { found } from './found'
import { forgetMissingIntent } from '../intents'
import { mending } from './mending'

/** A system as findings about the way to it name it. */
interface OfSystem {
  readonly id: string
  readonly name: string
}

/** Why a system is not spoken to any more; nothing where it is, or only does not answer. */
export function edgeFindings(
  { id, name }: OfSystem,
  trouble: { readonly code: string; readonly why: string } | null,
): Finding[] {
  if (trouble?.code === 'connection.certificate-changed')
    return [
      found('certificate-changed', id, 'now', `${name} shows another certificate than the accepted one`, {
        evidence: trouble.why,
        risk: 'Somebody may answer in its stead. Nothing is told to it, so it is neither watched nor changed.',
        remedy:
          'Find out why the certificate has changed; then take the system out of the estate and register it anew.',
        offline: "Compare the fingerprint with the one on the system's own console.",
      }),
    ]
  if (trouble?.code === 'system.other-identity')
    return [
      found('other-identity', id, 'now', `Another system answers in the place of ${name}`, {
        evidence: trouble.why,
        risk: 'Nothing is told to it, so the system that was registered is neither watched nor changed.',
        remedy: 'Find out who answers at that address. If the system was exchanged, register the new one.',
        offline: "Compare the UUID with the one on the system's own console.",
      }),
    ]
  return []
}

/** How many of a kind are missing, since when, and some of their names. */
export interface Missing {
  readonly kind: KindName
  readonly count: number
  readonly since: Date
  readonly names: readonly string[]
}

/** What a reading found amiss in itself: what is not stated any more, and what is stated but cannot be used. */
export function readingFindings(
  { id, name }: OfSystem,
  missing: readonly Missing[],
  skipped: readonly { readonly locator: string; readonly why: string }[],
): Finding[] {
  const absent = missing.map(each => absentFinding({ id, name }, each))
  return skipped.length === 0 ? absent : [...absent, unusableFinding({ id, name }, skipped)]
}

/** What a system has stated before and states no longer. */
function absentFinding({ id, name }: OfSystem, each: Missing): Finding {
  const { one, many } = kindOf(each.kind).words
  const isData = each.kind === 'volumes' || each.kind === 'pools'
  const more = each.count > each.names.length ? ', …' : ''
  return found(
    `missing-${each.kind}`,
    id,
    isData ? 'now' : 'soon',
    `${name} no longer states ${countWords(each.count, one, many)}`,
    {
      evidence: `${each.names.join(', ')}${more}; missing since ${each.since.toISOString()}.`,
      risk: isData
        ? 'They were removed by somebody else, or the system does not tell the truth. Their holdings and changes are kept.'
        : 'They were taken out, or the system does not tell the truth.',
      remedy: `Look at the system itself. If they are gone for good, forget what is missing of ${name}.`,
      draft: mending(forgetMissingIntent, { systemId: id }),
      offline: 'Look whether they are in their places.',
    },
  )
}

/** What a system states and could not be used. */
const unusableFinding = (
  { id, name }: OfSystem,
  skipped: readonly { readonly locator: string; readonly why: string }[],
): Finding =>
  found(
    'not-usable',
    id,
    'note',
    `${name} states ${countWords(skipped.length, 'thing', 'things')} that cannot be used`,
    {
      evidence: skipped
        .slice(0, 5)
        .map(each => `${each.locator}: ${each.why}`)
        .join(' '),
      risk: 'They are left out of every figure; all else that it states is used.',
      remedy: "The system's firmware breaks the standard at these places.",
      offline: 'Nothing needs to be done in the machine room.',
    },
  )

/** A clock that differs from the one that counts. @param secondsAhead less than 0 where it is behind */
export const clockFinding = ({ id, name }: OfSystem, secondsAhead: number): Finding =>
  found(
    'clock-apart',
    id,
    'soon',
    `The clock of ${name} is ${formatSeconds(Math.abs(secondsAhead))} ${secondsAhead > 0 ? 'ahead' : 'behind'}`,
    {
      evidence: `It was compared with the estate's clock when it was last read.`,
      risk: 'What it logs and states bears wrong times. Nothing is counted by it: holdings and forecasts go by the clock that counts.',
      remedy: 'Give it the same time source as the others.',
      offline: "Compare its console's time with yours.",
    },
  )

/** How far a system's clock may be off before it is told (seconds of the estate's time at the wall's rate). */
export const clockApartSeconds = 60
