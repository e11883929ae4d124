import { WendrelError } from '@/core/errors'

/** A stored secret cannot be opened. */
export class SecretUnreadable extends WendrelError {
  readonly code = 'records.secret-unreadable'
  constructor(why: string, options?: ErrorOptions) {
    super(
      {
        what: 'A stored password cannot be read.',
        why,
        remedy: 'Put the key file back that belongs to this database, or register the system anew.',
      },
      options,
    )
  }
}
