import { WendrelError } from '@/core/errors'

/** Who asks may not, or not now. */
export class AccessRefused extends WendrelError {
  constructor(
    readonly status: number,
    readonly code: string,
    what: string,
    why: string,
    remedy: string,
    readonly retrySeconds?: number,
  ) {
    super({ what, why, remedy })
  }
}

/** What was asked for is not there. */
export class NotThere extends WendrelError {
  readonly code = 'api.not-there'
  constructor(what: string) {
    super({ what: `${what} is not there.`, why: 'It has gone, or it never was.', remedy: 'Read the list again.' })
  }
}

/** The body or a parameter breaks its schema. */
export class BadRequest extends WendrelError {
  readonly code = 'api.bad-request'
  constructor(why: string) {
    super({
      what: 'The request was not carried out.',
      why,
      remedy: 'The OpenAPI document at /api/v1/openapi.json says what is taken.',
    })
  }
}

/** The body is longer than the operation takes. */
export class BodyTooLarge extends WendrelError {
  readonly code = 'api.body-too-large'
  constructor(mostBytes: number) {
    super({
      what: 'The request was not carried out.',
      why: `Its body is longer than the ${mostBytes} bytes that this operation takes; it was not read.`,
      remedy: 'Send less at once.',
    })
  }
}

/** The path is there, but not for this method. */
export class WrongMethod extends WendrelError {
  readonly code = 'api.wrong-method'
  constructor(
    method: string,
    readonly allowed: readonly string[],
  ) {
    super({
      what: 'The request was not carried out.',
      why: `This path does not take ${method}.`,
      remedy: `It takes ${allowed.join(', ')}.`,
    })
  }
}
