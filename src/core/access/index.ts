export { passwordRules, sameRule } from './passwordRules'
export { addressOf, readClient, type Client } from './files/client'
export {
  decidingRule,
  exportTable,
  type Asking,
  type ExportRule,
  type ExportTable,
  type Flavour,
} from './files/exportRules'
export { askingFrom, type Sender } from './files/asking'
export { ruleReach, type RuleReach } from './files/ruleReach'
export {
  bitsFor,
  modeClass,
  modeLetters,
  type AccessEntry,
  type FileIdentity,
  type FileOperation,
  type FileOwner,
  type ModeClass,
} from './files/modeBits'
export { entryWords, isWho, judgeFile, madeIn, readWho, unreached, whoWords } from './files/accessList'
export { mayBehind, mayFile, squashed, type FileAnswer, type FileRequest } from './files/mayFile'
export { editsWords, newRule, turningChanges, type Edit, type ShareRights, type Turning } from './files/turning'
export { fileGates, smbGates, type Gate, type GateAnswer, type ShareState } from './files/gates'
export {
  allGrants,
  decidingGrant,
  everybody,
  mayBySmb,
  type GrantAnswer,
  type GrantedRight,
  type ShareGrant,
  type SignedIn,
} from './files/shareGrants'
export {
  smbEditsWords,
  smbRightsOf,
  smbTurnings,
  type SmbEdit,
  type SmbRights,
  type SmbTurning,
} from './files/smbTurning'
export { signedIn, type Known } from './people/signedIn'
export { suppose, type Supposition } from './people/suppose'
export { rings, wayTo } from './people/membership'
export { reviewLines, sinceReview, withoutLines, type ReviewedLine, type ReviewLine } from './files/review'
export { isMode, ruleTroubles, wholeMode, type RuleTrouble } from './files/shareChecks'
export {
  mayObject,
  type Granted,
  type ObjectAnswer,
  type ObjectGrant,
  type ObjectRequest,
  type StoredObject,
} from './objects/mayObject'
export { nfsRights, smbRight } from './files/bestRight'
export { rightsMatrix, type MatrixCell, type Right } from './files/rightsMatrix'
