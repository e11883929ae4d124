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
