export { ClassTable, keptInWords } from './ClassTable'
export { keptWords, PromiseLines } from './PromiseLines'
export { KeptBars } from './KeptBars'
export { PromiseTable } from './PromiseTable'
