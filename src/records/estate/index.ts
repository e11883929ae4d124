export { loadEstate, columns } from './loadEstate'
export * from './mapRows'
