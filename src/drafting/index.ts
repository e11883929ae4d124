export { wendrel, type Author } from './Author'
export { carryOut, resume, stop } from './carryOut'
export { alterDraft, draftReverse, dropDraft, existing, makeDraft } from './drafts'
export { planNow } from './planNow'
