import { WendrelError, type Refusal } from './WendrelError'

/** A refusal with its stable code, as it is stored with a change and sent to clients. */
export interface CodedRefusal extends Refusal {
  readonly code: string
}

/**
 * What an unknown error tells the administrator: that it is a fault of Wendrel. Its own words stay in the log of the process that met
 * it, for they may be the database's or a library's and tell of things that nobody outside should know.
 */
export function refusalOf(cause: unknown): CodedRefusal {
  if (cause instanceof WendrelError) return { code: cause.code, what: cause.what, why: cause.why, remedy: cause.remedy }
  return {
    code: 'wendrel.unexpected',
    what: 'Wendrel met a fault that it did not foresee.',
    why: 'It is described in the log of the process that met it.',
    remedy: 'Nothing was lost. Try again; if it stays, look into the log of the worker and of the web process.',
  }
}
