import { WendrelError } from '@/core/errors'

/** The system understood the request and refused it. */
export class RequestRefused extends WendrelError {
  readonly code = 'system.request-refused'
  constructor(
    path: string,
    readonly status: number,
    said: { readonly message: string; readonly resolution: string } | undefined,
    readonly retryAfterSeconds: number | null = null,
  ) {
    super({
      what: `The system refused ${path}.`,
      why: said?.message ?? `It answered with status ${status} and no reason.`,
      remedy:
        said === undefined || said.resolution === '' || said.resolution === 'None.'
          ? 'Correct what it names, then try again.'
          : said.resolution,
    })
  }
}
