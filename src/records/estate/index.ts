export { fromRow, type RowOf } from './fromRow'
export { loadEstate } from './loadEstate'
export { probesAndNames } from './rowRecords'
