import { WendrelError } from '../errors'

/** A file of worked cases asks for a subject that core does not compute. */
export class UnknownSubject extends WendrelError {
  readonly code = 'vectors.unknown-subject'
  constructor(readonly subject: string) {
    super({
      what: `Worked cases of "${subject}" cannot be answered.`,
      why: 'Core computes no such subject.',
      remedy: 'Check the file\'s "subject", or add the subject to core and to its answers.',
    })
  }
}
