import {
  exportTable,
  isMode,
  mayFile,
  ruleReach,
  ruleTroubles,
  wholeMode,
  everybody,
  type ExportRule,
  type ShareGrant,
  type ShareRights,
} from '@/core/access'
import type { Estate, Share } from '@/core/estate'
import type { Effect, PlanCheck } from '@/core/plan'
import { advise, must, rule } from '../checks'

/** What is asked for of a share's rights, as far as it can be used. */
export interface RightsAsked {
  readonly ownerUid: number
  readonly ownerGid: number
  readonly mode: string
  readonly rules: readonly ExportRule[]
  readonly grants?: readonly ShareGrant[]
}

export const rightsAsked = ({
  ownerUid,
  ownerGid,
  mode,
  rules,
  grants = [],
}: RightsAsked): Pick<Share, 'ownerUid' | 'ownerGid' | 'mode' | 'rules' | 'grants'> => ({
  ownerUid,
  ownerGid,
  mode: wholeMode(mode),
  rules: rules.map(each => ({ ...each, client: each.client.trim(), flavours: [...each.flavours] })),
  grants: grants.map(each => ({ ...each })),
})

const shownRules = 6

/** Who may use a share, by the fields of it that say so. */
export const shareRightsFields = ['rules', 'grants', 'mode', 'ownerUid', 'ownerGid'] as const

/** Over what a share is served. */
export interface Over {
  readonly isNfs: boolean
  readonly isSmb: boolean
}

export const overOf = (protocols: readonly string[]): Over => ({
  isNfs: protocols.some(each => each.startsWith('NFS')),
  isSmb: protocols.some(each => each.startsWith('SMB')),
})

/** That rules, grants and mode can be, and what of them is hardly meant. */
export function rightsChecks(asked: RightsAsked, estate: Estate, over: Over): PlanCheck[] {
  const { mode } = asked
  return [
    rule(
      'mode',
      isMode(mode),
      `Its root has mode ${wholeMode(mode)}.`,
      'A mode is three or four octal digits, such as 0770.',
      { field: 'mode' },
    ),
    ...(over.isNfs ? ruleChecks(asked) : []),
    ...(over.isSmb ? grantChecks(asked, estate) : []),
  ]
}

/** That grants are for somebody whom a directory has, each once, and that someone is let in. */
function grantChecks({ grants = [] }: RightsAsked, { principals }: Estate): PlanCheck[] {
  const known = new Set(principals.map(({ durableId }) => durableId))
  const unknown = grants.filter(({ who }) => who !== everybody && !known.has(who))
  const there = new Set(principals.flatMap(each => (each.goneSince === null ? [each.durableId] : [])))
  const gone = grants.filter(({ who }) => known.has(who) && !there.has(who))
  const twice = grants.filter(({ who }, index) => grants.findIndex(each => each.who === who) !== index)
  const names = (all: readonly ShareGrant[]) =>
    all
      .slice(0, shownRules)
      .map(({ name }) => name)
      .join(', ')
  const field = { field: 'grants' }
  return [
    rule(
      'grants-known',
      unknown.length === 0,
      'Each grant is for a person or a group of a directory.',
      `No directory has ${names(unknown)}.`,
      field,
    ),
    rule('grants-once', twice.length === 0, 'Each has one grant.', `${names(twice)} has more than one grant.`, field),
    advise(
      'grants-there',
      gone.length === 0,
      'Each is there still.',
      `${names(gone)} is no longer in its directory.`,
      field,
    ),
    advise(
      'somebody-granted',
      grants.some(({ right }) => right !== 'none'),
      'Somebody may use it over SMB.',
      'No grant lets anybody use it over SMB.',
      { ...field, remedy: 'Grant a group what it needs.' },
    ),
  ]
}

function ruleChecks(asked: RightsAsked): PlanCheck[] {
  const { rules } = asked
  const troubles = ruleTroubles(rules, ruleReach(rules))
  const wrong = troubles.filter(({ level }) => level === 'must')
  const odd = troubles.filter(({ level }) => level === 'warn')
  const words = (all: typeof troubles) =>
    all
      .slice(0, shownRules)
      .map(({ index, why }) => `Rule ${index + 1}: ${why}`)
      .join(' ')
  return [
    rule('rules', wrong.length === 0, 'Each rule can be read.', words(wrong), { field: 'rules' }),
    advise('rules-reached', odd.length === 0, 'Each rule decides for somebody.', words(odd), { field: 'rules' }),
    advise(
      'somebody',
      rules.some(({ access }) => access !== 'none'),
      'Some hosts may mount it.',
      'No rule lets any host mount it.',
      {
        field: 'rules',
        remedy: 'Add a rule for a host or a subnet.',
      },
    ),
    ...kerberosCheck(rules),
    ...contradiction(asked),
  ]
}

/** Kerberos is to be had only by a service with a principal in a directory, which none has yet. */
function kerberosCheck(rules: readonly ExportRule[]): PlanCheck[] {
  const only = rules.flatMap(({ flavours }, index) =>
    flavours.length > 0 && !flavours.includes('sys') ? [index + 1] : [],
  )
  if (only.length === 0) return []
  return [
    must(
      'sign-in',
      false,
      `Rule ${only.join(', ')} takes Kerberos only, and its file service has no principal in a directory: nobody could sign in.`,
      {
        field: 'rules',
        remedy: 'Let it take sys as well.',
      },
    ),
  ]
}

/** A rule that lets hosts write, and a mode that lets nobody: the stricter counts. */
function contradiction({ rules, mode }: RightsAsked): PlanCheck[] {
  if (!isMode(mode)) return []
  const lets = rules.findIndex(each => each.access === 'rw' && each.squash === 'all')
  if (lets < 0) return []
  const own = rules[lets]
  const root = { uid: -1, gid: -1, mode: wholeMode(mode) }
  const request = {
    clientAddress: '',
    clientName: null,
    uid: own?.anonUid ?? 0,
    gid: own?.anonGid ?? 0,
    groups: [],
    flavour: 'sys' as const,
    operation: 'write' as const,
  }
  const answer = mayFile(
    exportTable([{ client: '*', access: 'rw', squash: 'none', anonUid: 0, anonGid: 0, flavours: ['sys'] }]),
    request,
    root,
  )
  return [
    advise(
      'mode-and-rules',
      answer.allowed,
      'The mode lets those write whom the rules let.',
      `Rule ${lets + 1} lets hosts write, but makes everybody uid ${own?.anonUid ?? 0}, who by the mode may not: the stricter counts.`,
      { field: 'mode' },
    ),
  ]
}

/** How many of the hosts that are known may mount and write, before and after. */
export function reachEffects(estate: Estate, before: ShareRights | undefined, after: ShareRights): Effect[] {
  const hosts = estate.hosts.filter(({ addresses }) => addresses.length > 0)
  const count = (rights: ShareRights, accesses: readonly string[]) => {
    const table = exportTable(rights.rules)
    return hosts.filter(({ addresses }) => {
      const request = {
        clientAddress: addresses[0] ?? '',
        clientName: null,
        uid: 0,
        gid: 0,
        groups: [],
        flavour: 'sys' as const,
        operation: 'read' as const,
      }
      const { ruleIndex } = mayFile(table, request, rights.root)
      const access = ruleIndex === null ? 'none' : (rights.rules[ruleIndex]?.access ?? 'none')
      return accesses.includes(access)
    }).length
  }
  const effect = (figure: string, label: string, accesses: readonly string[]): Effect => ({
    figure,
    label,
    unit: 'count',
    before: before === undefined ? null : count(before, accesses),
    after: count(after, accesses),
  })
  return [
    effect('hostsThatMount', `Of ${hosts.length} hosts with a known address may mount it`, ['rw', 'ro']),
    effect('hostsThatWrite', 'Of them may write to it', ['rw']),
  ]
}
