import { decidingRule, exportTable, type Asking, type Flavour } from './exportRules'
import { mayBehind, type FileAnswer } from './mayFile'
import type { FileIdentity } from './modeBits'
import type { ShareRights } from './turning'

/** The most that somebody may do: nothing, read, write without reading, or both. */
export type Right = 'none' | 'read' | 'write only' | 'change'

/** What somebody may, and what decided of the write, or of the read where not even that is let. */
export interface MatrixCell {
  readonly right: Right
  readonly read: FileAnswer
  readonly write: FileAnswer
}

/** What somebody may do with each share from each host: a row for each host. Rules are looked up, not looked through. */
export function rightsMatrix(
  shares: readonly ShareRights[],
  hosts: readonly Asking[],
  identity: FileIdentity,
  flavour: Flavour = 'sys',
): MatrixCell[][] {
  const tables = shares.map(({ rules }) => exportTable(rules))
  return hosts.map(host =>
    shares.map(({ root }, index) => {
      const table = tables[index] ?? exportTable([])
      const rule = decidingRule(table, host)
      const read = mayBehind(table, rule, { ...identity, flavour, operation: 'read' }, root)
      const write = mayBehind(table, rule, { ...identity, flavour, operation: 'write' }, root)
      const right = write.allowed ? (read.allowed ? 'change' : 'write only') : read.allowed ? 'read' : 'none'
      return { right, read, write }
    }),
  )
}
