import { WendrelError, type Refusal } from '@/core/errors'

/** What a message says besides its words. Source: DMTF Message schema. */
interface Elaboration {
  readonly headers?: Readonly<Record<string, string>>
  readonly arguments?: readonly string[]
  /** JSON pointers to the properties that it is about. */
  readonly properties?: readonly string[]
}

/** A request that the array refuses, with the Redfish registry message that says so. Source: DSP0266, error responses. */
export class Refused extends WendrelError {
  readonly code = 'standin.refused'
  constructor(
    readonly status: number,
    readonly messageId: string,
    refusal: Refusal,
    readonly more: Elaboration = {},
  ) {
    super(refusal)
  }
}

export const conflict = (what: string, why: string, remedy: string) =>
  new Refused(409, 'Base.1.18.ResourceInUse', { what, why, remedy })
export const badValue = (what: string, why: string, remedy: string) =>
  new Refused(400, 'Base.1.18.PropertyValueIncorrect', { what, why, remedy })
export const notFound = (path: string) =>
  new Refused(
    404,
    'Base.1.18.ResourceMissingAtURI',
    { what: `Nothing is at ${path}.`, why: 'No resource has this path.', remedy: 'Read the collection again.' },
    { arguments: [path] },
  )
