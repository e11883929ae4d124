import { WendrelError } from '@/core/errors'

/** No kind of change has that name. */
export class UnknownKind extends WendrelError {
  readonly code = 'change.unknown-kind'
  constructor(name: string, known: readonly string[]) {
    super({
      what: `"${name.slice(0, 60)}" is no kind of change.`,
      why: 'The register does not name it.',
      remedy: `Use one of ${known.join(', ')}.`,
    })
  }
}

/** What was sent is not an intent of that kind. */
export class IntentRefused extends WendrelError {
  readonly code = 'change.intent-refused'
  constructor(
    kind: string,
    readonly faults: readonly { readonly field: string; readonly why: string }[],
  ) {
    super({
      what: `The draft of ${kind} was not taken.`,
      why: faults.map(fault => `${fault.field === '' ? 'The intent' : fault.field} ${fault.why}.`).join(' '),
      remedy: 'Correct the named fields; the schema of each kind is in the OpenAPI document.',
    })
  }
}

/** Nodes that are to become one do not reach each other. */
export class PathsFail extends WendrelError {
  readonly code = 'change.paths-fail'
  constructor(from: string, to: string, count: number) {
    super({
      what: 'The cluster was not formed.',
      why: `${from} does not reach ${to} with full frames${count > 1 ? `, and ${count - 1} more pairs fail` : ''}.`,
      remedy: 'Look at the network page for the port that explains it, mend it, and draft the cluster again.',
    })
  }
}

/** A host and its systems would prove themselves by the same secret. */
export class SameSecret extends WendrelError {
  readonly code = 'change.same-secret'
  constructor() {
    super({
      what: 'The sign-in was not set.',
      why: 'The host and its systems would prove themselves by the same secret: whoever listens could play it back (RFC 7143).',
      remedy: 'Give two secrets.',
    })
  }
}

/** A host must prove itself to a system that is to let it in, and its secret is kept no more. */
export class SecretGone extends WendrelError {
  readonly code = 'change.secret-gone'
  constructor(host: string) {
    super({
      what: `Nothing was shown to ${host}.`,
      why: `${host} has to prove itself by CHAP where it logs in, and its secret is not kept any more: the system would let in whoever bears its name.`,
      remedy: 'Set its sign-in anew, then draft this again.',
    })
  }
}
