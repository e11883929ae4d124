import { WendrelError } from '../errors'

/** A code of that width does not exist over bytes. */
export class WidthRefused extends WendrelError {
  readonly code = 'erasure.width-refused'
  constructor(dataPieces: number, parityPieces: number) {
    super({
      what: `A code of ${dataPieces}+${parityPieces} pieces cannot be made.`,
      why: 'Over single bytes a stripe has at least one data piece and at most 256 pieces in all.',
      remedy: 'Choose a narrower code.',
    })
  }
}

/** More is lost than the code can restore. */
export class TooFewPieces extends WendrelError {
  readonly code = 'erasure.too-few-pieces'
  constructor(
    readonly present: number,
    readonly needed: number,
  ) {
    super({
      what: 'The data cannot be restored.',
      why: `${present} pieces of the stripe are left, and it takes ${needed} to read it.`,
      remedy: 'Bring back a drive or node that holds one of the lost pieces.',
    })
  }
}

/** Pieces of one stripe are of one length. */
export class PiecesUnlike extends WendrelError {
  readonly code = 'erasure.pieces-unlike'
  constructor() {
    super({
      what: 'The stripe was not computed.',
      why: 'Its pieces are not of one length.',
      remedy: 'Read the pieces again; one of them is torn.',
    })
  }
}
