import { WendrelError } from '@/core/errors'

/** The address cannot be reached at all. */
export class NotReached extends WendrelError {
  readonly code = 'connection.not-reached'
  constructor(address: string, why: string, options?: ErrorOptions) {
    super(
      {
        what: `Nothing could be reached at ${address}.`,
        why,
        remedy: 'Check the address and port, and that the network between lets this server through.',
      },
      options,
    )
  }
}

/** The system took the connection but did not answer in time. */
export class AnswerLate extends WendrelError {
  readonly code = 'connection.answer-late'
  constructor(path: string, patienceMilliseconds: number, options?: ErrorOptions) {
    super(
      {
        what: `The system did not answer ${path}.`,
        why: `It was given ${patienceMilliseconds / 1000} seconds.`,
        remedy: 'Look whether its management controller is busy or hanging; Wendrel tries again by itself.',
      },
      options,
    )
  }
}

/** What was answered is not what the standard says. */
export class UnreadableAnswer extends WendrelError {
  readonly code = 'connection.unreadable-answer'
  constructor(path: string, why: string, options?: ErrorOptions) {
    super(
      {
        what: `The answer from ${path} cannot be used.`,
        why,
        remedy:
          "Nothing was taken over from it. If it stays so, the system's firmware breaks the standard at this place.",
      },
      options,
    )
  }
}

/** The certificate is not the one that was accepted when the system was registered. */
export class CertificateChanged extends WendrelError {
  readonly code = 'connection.certificate-changed'
  constructor(address: string, options?: ErrorOptions) {
    super(
      {
        what: `${address} was not trusted.`,
        why: 'Its certificate is neither signed by a known authority nor the one that was accepted.',
        remedy: 'Find out why it has changed; then register the system anew to accept it.',
      },
      options,
    )
  }
}

/** The address is one of those that nothing may be sent to. */
export class AddressBarred extends WendrelError {
  readonly code = 'connection.address-barred'
  constructor(address: string, why: string) {
    super({
      what: `Nothing was sent to ${address}.`,
      why,
      remedy: 'Give an address of the network of your systems; which others may be used is set under Account.',
    })
  }
}

/** What a system names lies on another system. */
export class LeftOrigin extends WendrelError {
  readonly code = 'connection.left-origin'
  constructor(address: string, path: string) {
    super({
      what: `What ${address} names was not asked for.`,
      why: `${JSON.stringify(path.slice(0, 200))} leads away from it; the token would go to whoever is there.`,
      remedy: "The system's firmware breaks the standard at this place, or somebody answers in its stead.",
    })
  }
}

/** The system sends on to somewhere else. */
export class Redirected extends WendrelError {
  readonly code = 'connection.redirected'
  constructor(address: string, path: string, to: string) {
    super({
      what: `${address} did not answer ${path} itself.`,
      why: `It sends on to ${JSON.stringify(to.slice(0, 200))}; redirects are not followed, since the token would go with them.`,
      remedy: 'Register the system by the address at which it answers itself.',
    })
  }
}

/** Reading a system went on for longer than any system should need. */
export class ReadingUnbounded extends WendrelError {
  readonly code = 'connection.reading-unbounded'
  constructor(address: string, why: string) {
    super({
      what: `${address} was not read to its end.`,
      why,
      remedy: 'Nothing was taken over from this reading; what was known before stands.',
    })
  }
}
