/** One act of an administrator, or of Wendrel itself, as the record keeps it. */
export interface AuditEntry {
  readonly id: number
  /** ISO 8601, by the database's server. */
  readonly at: string
  readonly who: string
  readonly address: string | null
  readonly action: string
  readonly subject: string
  /** JSON, as text: what was hashed is what is shown. */
  readonly detail: string
  readonly previousHash: string
  /** SHA-256 over this entry and `previousHash`, in hexadecimal. */
  readonly hash: string
}
