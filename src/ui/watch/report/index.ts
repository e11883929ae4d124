export { monthWords } from './monthWords'
export { ReportSheet } from './ReportSheet'
export { ReportTools } from './ReportTools'
