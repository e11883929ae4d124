export { foldersIn, type FolderLine } from './folders'
export { beginScan, dropScan, endScan, keepScanPart, scansOf, type BegunScan } from './fileScans'
export { scanParts } from './scanParts'
