import { WendrelError } from '../errors'

/** A stripe needs more failure domains than hold space. */
export class TooFewPlaces extends WendrelError {
  readonly code = 'placement.too-few-domains'
  constructor(
    readonly domains: number,
    readonly width: number,
  ) {
    super({
      what: `Stripes cannot be placed on ${domains} failure domains.`,
      why: `A stripe has ${width} pieces, and no two of them may share a domain.`,
      remedy: `Bring back or add ${width - domains} more domains with space.`,
    })
  }
}
