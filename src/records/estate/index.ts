export { loadEstate, columns } from './loadEstate'
export * from './mapRows'
export { rowRecords } from './rowRecords'
