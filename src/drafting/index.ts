export { carryOut, resume, stop } from './carryOut'
export { alterDraft, draftReverse, dropDraft, existing, makeDraft } from './drafts'
export { NoDraft, NoSuchChange, NotNow, NotReady, PlanStale } from './errors'
export { estateNow, planNow } from './planNow'
