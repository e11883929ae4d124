export type { Finding, FindingGravity, FindingTree } from './Finding'
export { arrange, workOrder } from './arrange'
export { clockToleranceSeconds, rowFindings } from './rowFindings'
export { standing, type StandingFinding } from './standing'
