import { WendrelError } from '../errors'

/** A layout needs more failure domains than there are. */
export class TooFewDomains extends WendrelError {
  readonly code = 'layout.too-few-domains'
  constructor(
    readonly domains: number,
    readonly width: number,
  ) {
    super({
      what: `The layout cannot be placed on ${domains} failure domains.`,
      why: `A stripe is ${width} chunks wide, and no two of its chunks may share a domain.`,
      remedy: `Add ${width - domains} more domains, or choose a layout no wider than ${domains}.`,
    })
  }
}
