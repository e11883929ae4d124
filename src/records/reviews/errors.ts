import { WendrelError } from '@/core/errors'

/** The rights of a share are no longer those that were looked at. */
export class ShareChanged extends WendrelError {
  readonly code = 'review.share-changed'
  constructor(name: string) {
    super({
      what: `The review of ${name} was not kept.`,
      why: 'Its rights have been changed while they were looked at.',
      remedy: 'Look at them as they are now; what was decided of the others stays chosen.',
    })
  }
}
