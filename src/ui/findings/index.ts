export { FindingList } from './FindingList'
export { ImportCatalogue } from './ImportCatalogue'
export { SignException } from './SignException'
