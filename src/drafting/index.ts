export { carryOut, resume, stop } from './carryOut'
export { alterDraft, draftReverse, dropDraft, existing, makeDraft } from './drafts'
export { estateNow, planNow } from './planNow'
export { lookAtSystem } from './lookAtSystem'
