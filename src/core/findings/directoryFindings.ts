import { allGrants, type ShareGrant } from '../access'
import type { Directory, FileService, Principal, Share } from '../estate'
import { setServiceGrantsIntent, setShareRightsIntent } from '../intents'
import { certificateFindings } from './certificateFindings'
import type { Finding } from './Finding'
import { found } from './found'
import { mending } from './mending'

const shownNames = 4
const shortened = (names: readonly string[]) =>
  `${names.slice(0, shownNames).join(', ')}${names.length > shownNames ? ` and ${names.length - shownNames} more` : ''}`

/**
 * What is wrong with who may sign in: a directory that does not answer or is not known here, and grants for whom there is nobody any more.
 * @param now by the wall's time
 * @param principals those whom the grants of shares and services are for, as far as a directory has or had them
 */
export function directoryFindings(
  services: readonly FileService[],
  shares: readonly Share[],
  directories: readonly Directory[],
  principals: readonly Principal[],
  now: Date,
): Finding[] {
  // Of two directories that have somebody one is enough.
  const there = new Set(principals.flatMap(each => (each.goneSince === null ? [each.durableId] : [])))
  const gone = new Set(principals.flatMap(({ durableId }) => (there.has(durableId) ? [] : [durableId])))
  return [
    ...services.flatMap(service => signInFindings(service, directories, shares, now)),
    ...services.flatMap(service => serviceGrantFindings(service, gone)),
    ...shares.flatMap(share => grantFindings(share, gone)),
  ]
}

function signInFindings(
  service: FileService,
  directories: readonly Directory[],
  shares: readonly Share[],
  now: Date,
): Finding[] {
  const { joinedTo, name, id } = service
  if (joinedTo === null) return []
  const served = shares.filter(each => each.fileServiceId === id && allGrants(each).length > 0).map(each => each.name)
  const directory = directories.find(({ baseDn }) => baseDn.toLowerCase() === joinedTo.toLowerCase())
  if (directory === undefined)
    return [
      found('directory-unknown', id, 'note', `The directory of ${name} is not registered`, {
        evidence: `It belongs to ${joinedTo}, which no registered directory has.`,
        risk: 'Who may do what over SMB cannot be told by name.',
        remedy: 'Register the directory.',
        offline: 'Nothing has to be done in the machine room.',
      }),
    ]
  const { certificateEndsAt } = directory
  const endsAt = certificateEndsAt === null ? null : new Date(certificateEndsAt)
  const ending = certificateFindings(
    { id, name: `${directory.name}, by which people sign in to ${name},`, endsAt },
    now,
  )
  if (directory.state !== 'not answering') return ending
  return [
    ...ending,
    found('directory-silent', id, 'soon', `${directory.name}, by which people sign in to ${name}, does not answer`, {
      evidence: directory.stateWhy ?? 'No reason is known.',
      risk:
        served.length === 0
          ? 'Nothing is shared over SMB yet.'
          : `Who is not signed in yet may be refused at ${shortened(served)}; what is known of people here grows old.`,
      remedy: `Look whether ${directory.address} runs, and whether something on the way bars it.`,
      offline: 'Look whether its machine has power and its lights of the network.',
    }),
  ]
}

function serviceGrantFindings({ id, name, grants }: FileService, gone: ReadonlySet<string>): Finding[] {
  const dead = grants.filter(({ who }) => gone.has(who))
  const left = grants.filter(({ who }) => !gone.has(who))
  if (dead.length === 0) return []
  return [
    found('grant-gone', id, 'note', `Grants for all shares of ${name} for whom there is nobody any more`, {
      ...deadWords(dead),
      draft: mending(setServiceGrantsIntent, { fileServiceId: id, grants: left }),
    }),
  ]
}

const deadWords = (dead: readonly ShareGrant[]) => ({
  evidence: `Their directory no longer has ${shortened(dead.map(({ name }) => name))}.`,
  risk: 'Nobody can use them; whoever reads the list may believe that somebody can.',
  remedy: 'Take them away, once it is certain that they will not come back.',
  offline: 'Nothing has to be done in the machine room.',
})

function grantFindings(share: Share, gone: ReadonlySet<string>): Finding[] {
  const dead = share.grants.filter(({ who }) => gone.has(who))
  if (dead.length === 0) return []
  const { ownerUid, ownerGid, mode, rules } = share
  const grants = share.grants.filter(({ who }) => !gone.has(who))
  return [
    found('grant-gone', share.id, 'note', `Grants of ${share.name} for whom there is nobody any more`, {
      ...deadWords(dead),
      draft: mending(setShareRightsIntent, { shareId: share.id, ownerUid, ownerGid, mode, rules, grants }),
    }),
  ]
}
