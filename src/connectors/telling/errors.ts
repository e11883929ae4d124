import { WendrelError } from '@/core/errors'

/** A receiver has answered, and does not take the message. */
export class NotTaken extends WendrelError {
  readonly code = 'telling.not-taken'
  constructor(address: string, why: string, options?: ErrorOptions) {
    super(
      {
        what: `The message was not taken at ${address}.`,
        why,
        remedy: 'Look at what the receiver says; the message is sent again by itself for a day.',
      },
      options,
    )
  }
}
