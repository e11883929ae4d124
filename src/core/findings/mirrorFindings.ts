import { refillMirrorIntent } from '../intents'
import type { Finding } from './Finding'
import { found } from './found'
import { mending } from './mending'

/** A volume whose other end no longer follows it. */
export interface BrokenMirror {
  readonly volumeId: string
  readonly name: string
  /** The system where the other end stands; null where it is not known here. */
  readonly partnerName: string | null
}

/** Mirrors that are broken: nothing of what is written since reaches the other end, and nobody is kept waiting for it. */
export const mirrorFindings = (system: { readonly name: string }, broken: readonly BrokenMirror[]): Finding[] =>
  broken.map(({ volumeId, name, partnerName }) => {
    const there = partnerName ?? 'the other system'
    return found('mirror-broken', volumeId, 'now', `The mirror of ${name} on ${there} is broken`, {
      evidence: `${system.name} says that ${there} no longer holds what it does. Hosts go on, and were not kept waiting.`,
      risk: `What is written since is on ${system.name} alone. When that is lost, ${there} has an older state, whose parts are of different instants.`,
      remedy: `Bring ${there} and the line to it back, then fill the mirror again: it does not go on by itself.`,
      offline: `Look whether ${there} has power, and at both ends of the line between.`,
      draft: mending(refillMirrorIntent, { volumeId, ratePercent: 30 }),
    })
  })
