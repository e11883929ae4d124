export { sinceRoundWords, type Round, type SinceRound } from './sinceRound'
export { todayFindings, type TodayFinding } from './todayFindings'
