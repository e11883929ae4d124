export { audit, auditAfter, auditEntries, firstBrokenEntry, hashOf, isNotedLately, noEntryYet, type Act } from './audit'
