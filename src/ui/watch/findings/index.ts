export { FindingList } from './FindingList'
export { ImportCatalogue } from './ImportCatalogue'
export { TodayFindings } from './TodayFindings'
