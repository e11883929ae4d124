export { sinceRoundWords, type Round, type SinceRound } from './sinceRound'
export { todayFindings, type TodayFinding } from './todayFindings'
export { letStand, mayStand, type StandingException, type StoodFinding } from './letStand'
