import type { ValidateFunction } from 'ajv'
import { UnreadableAnswer } from '../http'
import { checked, isGone, isLink } from './answers'

const readAtOnce = 4

/** What reads links, and is told of what cannot be used. */
interface Reader {
  whole<T>(value: Partial<Member>, isAnswer: ValidateFunction<T>): Promise<T>
  skip(locator: string, why: string): void
}
interface Member {
  readonly '@odata.id': string
}

/** Those of some members that can be used: read where they are links only. What cannot be used is told of. */
export async function usable<T>(
  connection: Reader,
  members: readonly Member[],
  isMember: ValidateFunction<T>,
): Promise<T[]> {
  const found = members.map(member => (isLink(member) ? undefined : stated(connection, member, isMember)))
  const links = members.flatMap((member, index) => (isLink(member) ? [{ member, index }] : []))
  for (let from = 0; from < links.length; from += readAtOnce)
    await Promise.all(
      links.slice(from, from + readAtOnce).map(async ({ member, index }) => {
        found[index] = await usableOne(connection, member, isMember)
      }),
    )
  return found.filter(each => each !== undefined)
}

/** A member that stands in its collection, where it can be used. */
function stated<T>(connection: Reader, member: Member, isMember: ValidateFunction<T>): T | undefined {
  try {
    return checked(member['@odata.id'], member, isMember)
  } catch (cause) {
    if (!(cause instanceof UnreadableAnswer)) throw cause
    connection.skip(member['@odata.id'], cause.why)
    return undefined
  }
}

async function usableOne<T>(connection: Reader, member: Member, isMember: ValidateFunction<T>): Promise<T | undefined> {
  try {
    return await connection.whole(member, isMember)
  } catch (cause) {
    if (cause instanceof UnreadableAnswer) connection.skip(member['@odata.id'], cause.why)
    else if (!isGone(cause)) throw cause
    return undefined
  }
}
