export { suggestedRole, type DriveRole, type SuggestedRole } from './roles'
export { layBanks, type Bank, type LaidBanks } from './banks'
export { isSpreadScheme, lossTolerance, piecesOf, schemeWords, widthOf, writeCost } from './scheme'
export {
  clusterLayout,
  domainOf,
  lacking,
  metadataRatio,
  type ClusterLayout,
  type ClusterParts,
  type LayoutWish,
} from './clusterLayout'
export {
  clusterDurability,
  spreadDurability,
  type ClusterDurability,
  type ClusterRebuild,
  type SpreadLoss,
  type SpreadRisk,
} from './clusterDurability'
export { stripeSetCount } from './scheme'
export { spreadMove, spreadRebuild, unevenness } from './rates'
