export { ImportCatalogue } from './ImportCatalogue'
