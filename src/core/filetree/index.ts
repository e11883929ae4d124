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
  countsAlike,
  judgeWrite,
  overSoftAfter,
  pathsOf,
  plainPath,
  projectKey,
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
  mostComparedBytes,
  mostReadBytes,
  sizeBytes,
  type Difference,
  type FileReport,
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
export { readSlice, SliceReader, type Slice } from './fileSlices'
export { comparePaths } from './pathOrder'
export { FolderSums, type FolderSum } from './folderSums'
export { quotaTree, type QuotaNode } from './quotaTree'
