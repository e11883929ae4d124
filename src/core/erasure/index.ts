export { ErasureCode } from './ErasureCode'
export { PiecesUnlike, TooFewPieces, WidthRefused } from './errors'
