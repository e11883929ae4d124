export { beginScan, dropScan, endScan, keepScanPart, scanParts, scansOf, type BegunScan } from './fileScans'
