export {
  contentOf,
  fileKinds,
  fitsPattern,
  headOf,
  judgeKind,
  nameThatFits,
  type FileKind,
  type FileKindAnswer,
  type FileRule,
} from './fileKinds'
export { limitTroubles, type LimitTrouble } from './limitTroubles'
export {
  judgeWrite,
  overSoftAfter,
  plainPath,
  quotaIndex,
  quotasFor,
  readQuotas,
  type AppliedQuota,
  type Quota,
  type QuotaAnswer,
  type QuotaIndex,
  type QuotaUsed,
  type QuotaWrite,
} from './quotas'
export {
  ageDays,
  FileReporter,
  growthOf,
  mostReadBytes,
  readSlice,
  sizeBytes,
  SliceReader,
  type Difference,
  type FileReport,
  type Slice,
  type Sum,
} from './fileReport'
export {
  fileAt,
  makeSegment,
  packSegment,
  segmentFiles,
  unpackSegment,
  type FileSegment,
  type ListedFile,
} from './segments'
export { comparePaths } from './pathOrder'
export { quotaTree, type QuotaNode } from './quotaTree'
