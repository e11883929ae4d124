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
