import type { Endpoint, Exchanged } from '../http'
import { pathWithin, refusal } from './answers'
import { SignInRefused } from './errors'

export interface Credentials {
  readonly userName: string
  readonly password: string
}

/** Something that a system states and that could not be used; the rest of its answer could. */
export interface Skipped {
  readonly locator: string
  readonly why: string
}

/** What one sign-in gives, shared by all that speak to the system at the same time. */
export interface Session {
  token: string | undefined
  locator: string | undefined
  signingIn: Promise<string> | undefined
  /** Whether the system can put members into their collection; undefined until it has been asked. */
  canExpand: boolean | undefined
  /** Whether it can give a part of them. */
  canSkip: boolean | undefined
  /** Until when the certificate is valid that the system showed last. */
  certificateEndsAt: Date | null
}

/** Nobody has signed in yet. */
export const notSignedIn = (): Session => ({
  token: undefined,
  locator: undefined,
  signingIn: undefined,
  canExpand: undefined,
  canSkip: undefined,
  certificateEndsAt: null,
})

/** Opens a session. @param service where sessions are opened, if the system says so @throws {SignInRefused} */
export async function opened(
  endpoint: Endpoint,
  { userName, password }: Credentials,
  service: string | undefined,
  send: (path: string, body: object) => Promise<Exchanged>,
): Promise<{ readonly token: string; readonly locator: string | undefined }> {
  const path = service ?? '/redfish/v1/SessionService/Sessions'
  const answer = await send(path, { UserName: userName, Password: password })
  if (answer.status === 401 || answer.status === 403) throw new SignInRefused(endpoint.address)
  const token = answer.headers['x-auth-token']
  if (answer.status >= 400 || typeof token !== 'string') throw refusal('POST', path, answer)
  const { location } = answer.headers
  return { token, locator: typeof location === 'string' ? pathWithin(endpoint, location) : undefined }
}
