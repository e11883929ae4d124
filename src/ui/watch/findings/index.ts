export { FindingList } from './FindingList'
export { ImportCatalogue } from './ImportCatalogue'
