import { WendrelError } from '@/core/errors'

/** A host reads other bytes from the one end of a mirror than from the other. */
export class CopiesDiffer extends WendrelError {
  readonly code = 'change.copies-differ'
  constructor(host: string, places: number) {
    super({
      what: 'The other system was not let take over.',
      why: `${host} reads other bytes from it in ${places} of the places that it compared.`,
      remedy: 'Ask the maker of the systems; the volume stands where it was.',
    })
  }
}

/** A host would lose a volume. */
export class WayMissing extends WendrelError {
  readonly code = 'change.way-missing'
  constructor(host: string) {
    super({
      what: 'The other system was not let take over.',
      why: `${host} has no way to it that is up: it would lose the volume.`,
      remedy: 'Look at its network and at the ports of the system, then draft the move again.',
    })
  }
}
