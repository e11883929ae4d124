import type { Hop } from './path'

/** What a probe between two nodes found: the largest packet that passed whole. */
export interface PathAnswer {
  /** In bytes of MTU; null where nothing passed at all. */
  readonly passedMtu: number | null
  /** What the probing node says where it could not even try. */
  readonly why: string | null
}

export type PathVerdict = 'passes' | 'smaller MTU' | 'wrong VLAN' | 'link down' | 'no answer'

export interface PathReading {
  readonly verdict: PathVerdict
  /** The hop that explains it; undefined where what is stated explains nothing. */
  readonly hop: Hop | undefined
  readonly words: string
  readonly remedy: string
}

/**
 * Says what a probe means: the first hop on the way whose own settings explain what was seen. Where packets pass that a hop
 * should not let through, or none of the stated settings explains a loss, that is said as it is.
 * @param hops the way, or undefined where the cabling is not known
 */
export function readPath(
  hops: readonly Hop[] | undefined,
  vlan: number | null,
  wantedMtu: number,
  answer: PathAnswer,
): PathReading {
  if (answer.passedMtu !== null && answer.passedMtu >= wantedMtu) {
    return { verdict: 'passes', hop: undefined, words: `Packets of ${wantedMtu} bytes pass whole.`, remedy: '' }
  }
  if (answer.passedMtu !== null) return tooSmall(hops, wantedMtu, answer.passedMtu)
  const down = hops?.find(hop => !hop.isUp)
  if (down !== undefined) {
    return {
      verdict: 'link down',
      hop: down,
      words: `${down.words} is down.`,
      remedy: 'Look at its cable and its far end.',
    }
  }
  const shut = vlan === null ? undefined : hops?.find(hop => hop.vlans !== undefined && !hop.vlans.includes(vlan))
  if (shut !== undefined) {
    return {
      verdict: 'wrong VLAN',
      hop: shut,
      words: `${shut.words} does not carry VLAN ${vlan}; it carries ${shut.vlans?.join(', ') ?? 'none'}.`,
      remedy: `Let ${shut.words} carry VLAN ${vlan}.`,
    }
  }
  return {
    verdict: 'no answer',
    hop: undefined,
    words: answer.why ?? 'Nothing came back, and no port on the way explains it.',
    remedy: 'See whether both nodes answer, and whether their addresses are in one subnet.',
  }
}

function tooSmall(hops: readonly Hop[] | undefined, wantedMtu: number, passedMtu: number): PathReading {
  const narrow = hops?.find(hop => hop.mtu < wantedMtu)
  if (narrow === undefined) {
    return {
      verdict: 'smaller MTU',
      hop: undefined,
      words: `Only ${passedMtu} bytes pass whole, though every port on the way states ${wantedMtu} or more.`,
      remedy: 'Something that is not in the inventory stands between them: follow the cable.',
    }
  }
  return {
    verdict: 'smaller MTU',
    hop: narrow,
    words: `${narrow.words} has MTU ${narrow.mtu}, so ${passedMtu} of ${wantedMtu} bytes pass whole.`,
    remedy: `Set the MTU of ${narrow.words} to ${wantedMtu} or more.`,
  }
}
