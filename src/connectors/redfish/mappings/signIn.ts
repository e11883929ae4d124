import { NotOffered, type SignInAsked, type SignInSecrets } from '@/ports'
import type { Connection } from '../Connection'
import { ofMaker } from '../makers'
import { nameOf, newEndpoint } from './endpoint'
import { isEndpoint } from './schema'

/** What is asked of an initiator where it logs in; undefined for one that is not known there, or of which nothing is told. */
export async function signInOf(
  connection: Connection,
  endpoints: string,
  initiator: string,
): Promise<SignInAsked | undefined> {
  const found = (await connection.members(endpoints, isEndpoint)).find(each => nameOf(each) === initiator)
  return found === undefined ? undefined : ofMaker.signIn(found)
}

/** Asks an initiator to prove itself; one that the system does not know yet is told to it. @throws {NotOffered} */
export async function setSignIn(
  connection: Connection,
  maker: string,
  endpoints: string,
  initiator: string,
  secrets: SignInSecrets | null,
): Promise<void> {
  const body = ofMaker.signInBody(maker, secrets)
  if (body === undefined)
    throw new NotOffered(connection.endpoint.address, 'mappings', 'Its maker has no words for a sign-in by CHAP.')
  const known = (await connection.members(endpoints, isEndpoint)).find(each => nameOf(each) === initiator)
  const locator =
    known?.['@odata.id'] ?? (await connection.change('POST', endpoints, newEndpoint(initiator))).location ?? ''
  await connection.changeAsRead(locator, isEndpoint, () => ({ method: 'PATCH', body }))
}
