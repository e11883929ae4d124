export { todayFindings, type TodayFinding } from './todayFindings'
