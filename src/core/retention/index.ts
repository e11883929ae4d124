export { keptSnapshots, retentionRules, type RetentionRule, type RetentionRules } from './keptSnapshots'
