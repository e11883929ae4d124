export { RoundDone } from './RoundDone'
export { SinceRound } from './SinceRound'
