import { WendrelError, type Refusal } from '@/core/errors'

/** What a host's agent refuses. */
export class HostRefused extends WendrelError {
  readonly code = 'standin.host-refused'
  constructor(
    readonly status: number,
    refusal: Refusal,
  ) {
    super(refusal)
  }
}

export const refuse = (status: number, what: string, why: string, remedy: string) =>
  new HostRefused(status, { what, why, remedy })
