export { GroupsAbove } from './GroupsAbove'
export { PersonSentence, PersonShares } from './PersonShares'
export { WhoCanMatrix } from './WhoCanMatrix'
