export { PoolLines } from './PoolLines'
export { FillMark, PoolState } from './PoolMarks'
export { fillOf, layoutWords } from './poolWords'
