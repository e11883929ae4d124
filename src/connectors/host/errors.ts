import { WendrelError, type Refusal } from '@/core/errors'

/** The host's agent understood and refused. */
export class HostRefused extends WendrelError {
  readonly code = 'host.refused'
  constructor(
    address: string,
    readonly status: number,
    said: Refusal | undefined,
  ) {
    super(
      said ?? {
        what: `The host agent at ${address} refused.`,
        why: 'It gave no reason.',
        remedy: "See the log of the host's own agent.",
      },
    )
  }
}
