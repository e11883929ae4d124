import type { Finding } from './Finding'
import { found } from './found'

/** A certificate is told of so long before it ends (milliseconds): to be signed anew takes weeks where others have to agree. */
const soonMilliseconds = 30 * 86_400_000

interface Shown {
  /** What the finding is about: what shows the certificate, or what depends on it. */
  readonly id: string
  /** What shows it. */
  readonly name: string
  readonly endsAt: Date | null
}

/** A certificate that has ended, or will soon; nothing where it is valid for long. @param now by the wall's time, as certificates are */
export function certificateFindings({ id, name, endsAt }: Shown, now: Date): Finding[] {
  if (endsAt === null || endsAt.getTime() - now.getTime() > soonMilliseconds) return []
  const isOver = endsAt <= now
  const day = endsAt.toISOString().slice(0, 10)
  const title = isOver ? `The certificate of ${name} has ended` : `The certificate of ${name} ends on ${day}`
  return [
    found('certificate-ends', id, isOver ? 'now' : 'soon', title, {
      evidence: `It was shown as valid until ${endsAt.toISOString()}.`,
      risk: 'Whoever goes by its date refuses it from then on: browsers, and Wendrel too unless this very certificate was accepted here by its fingerprint.',
      remedy:
        'Have it signed anew and put in. A certificate that was accepted by its fingerprint has to be accepted anew then.',
      offline: 'Nothing has to be done in the machine room.',
    }),
  ]
}
