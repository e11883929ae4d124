export { FindingList } from './FindingList'
export { TodayFindings } from './TodayFindings'
