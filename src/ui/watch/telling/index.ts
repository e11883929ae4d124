export { ToldMargin } from './ToldMargin'
export { ToldTable } from './ToldTable'
export { tellingSentence } from './toldWords'
