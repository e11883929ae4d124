import { BlockList, isIP } from 'node:net'
import type { ExportRuleEntity } from '../array'
import type { FileMarks } from './FileSystems'
import { marksLet } from './rootRights'

/** Who asks over the network: from where, and who it says that it is. */
export interface Caller {
  readonly address: string
  readonly name: string | null
  readonly uid: number
  readonly gid: number
  readonly groups: readonly number[]
}

export type Verdict =
  | { readonly may: true; readonly as: Omit<Caller, 'address' | 'name'> }
  | { readonly may: false; readonly why: string }

const family = (address: string) => (isIP(address) === 6 ? 'ipv6' : 'ipv4')

/** How closely a rule names a caller; below zero where it does not. */
function closeness({ client }: ExportRuleEntity, { address, name }: Caller): number {
  if (client === '*') return 0
  if (name !== null && client.toLowerCase() === name.toLowerCase()) return 1000
  const [first = '', length] = client.split('/')
  if (isIP(first) === 0) return -1
  const list = new BlockList()
  if (length === undefined) list.addAddress(first, family(first))
  else list.addSubnet(first, Number(length), family(first))
  if (!list.check(address, family(address))) return -1
  return length === undefined ? 1000 : 1 + Number(length)
}

/** The rule that names a caller most closely; of several the first. */
export function ruleFor(rules: readonly ExportRuleEntity[], caller: Caller): ExportRuleEntity | undefined {
  let best: { readonly rule: ExportRuleEntity; readonly closeness: number } | undefined
  for (const rule of rules) {
    const own = closeness(rule, caller)
    if (own >= 0 && own > (best?.closeness ?? -1)) best = { rule, closeness: own }
  }
  return best?.rule
}

/** Whether a caller may mount at all. */
export function mayMount(rules: readonly ExportRuleEntity[], caller: Caller): Verdict {
  const rule = ruleFor(rules, caller)
  if (rule === undefined || rule.access === 'none') return { may: false, why: 'access denied by server' }
  if (!rule.flavours.includes('sys')) return { may: false, why: 'no security flavour in common' }
  return { may: true, as: identityBehind(rule, caller) }
}

function identityBehind(rule: ExportRuleEntity, { uid, gid, groups }: Caller) {
  if (rule.squash === 'none') return { uid, gid, groups }
  if (rule.squash === 'root' && uid !== 0) return { uid, gid, groups }
  return { uid: rule.anonUid, gid: rule.anonGid, groups: [] }
}

/** Whether a caller may read or write what has these marks. */
export function mayTouch(
  rules: readonly ExportRuleEntity[],
  caller: Caller,
  marks: FileMarks,
  isWrite: boolean,
): Verdict {
  const mounted = mayMount(rules, caller)
  if (!mounted.may) return mounted
  if (isWrite && ruleFor(rules, caller)?.access !== 'rw') return { may: false, why: 'read-only file system' }
  const { uid, gid, groups } = mounted.as
  const isLet = marksLet(marks, { uid, gids: [gid, ...groups] }, isWrite)
  return isLet ? mounted : { may: false, why: 'permission denied' }
}
