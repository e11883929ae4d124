import { WendrelError, type Refusal } from './WendrelError'

/** A refusal with its stable code, as it is stored with a change and sent to clients. */
export interface CodedRefusal extends Refusal {
  readonly code: string
}

/** What an unknown error tells the administrator; one that is not ours is named as a fault of Wendrel. */
export function refusalOf(cause: unknown): CodedRefusal {
  if (cause instanceof WendrelError) return { code: cause.code, what: cause.what, why: cause.why, remedy: cause.remedy }
  const message = cause instanceof Error ? cause.message : String(cause)
  return {
    code: 'wendrel.unexpected',
    what: 'Wendrel met a fault that it did not foresee.',
    why: message.slice(0, 500),
    remedy: 'Nothing was lost. Try again; if it stays, the log of the worker and web process has the details.',
  }
}
