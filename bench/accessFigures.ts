import {
  decidingRule,
  exportTable,
  fileGates,
  mayBehind,
  newRule,
  readClient,
  rightsMatrix,
  turningChanges,
  type ExportRule,
  type FileRequest,
} from '@/core/access'
import { timed, under, type Figure } from './measure'

const ruleCount = 1000
const [shareCount, identityCount] = [500, 2000]
const lookups = 10_000

/** Rules for hosts and subnets of many lengths, none of them for the host that asks but the last. */
const manyRules = (seed: number): ExportRule[] =>
  Array.from({ length: ruleCount }, (_, index) => {
    const [a, b] = [(index * 7 + seed) % 250, (index * 13) % 250]
    const length = index === ruleCount - 1 ? 8 : [32, 28, 24, 20, 16][index % 5]
    const client =
      index % 5 === 0
        ? `172.16.${a}.${b}`
        : masked(index === ruleCount - 1 ? '10.0.0.0' : `172.${16 + (index % 16)}.${a}.${b}`, length ?? 24)
    return { ...newRule, client, access: index % 3 === 0 ? 'rw' : 'ro' }
  })

function masked(address: string, length: number): string {
  const whole = address.split('.').reduce((sum, part) => sum * 256 + Number(part), 0)
  const kept = Math.floor(whole / 2 ** (32 - length)) * 2 ** (32 - length)
  return `${[24, 16, 8, 0].map(shift => Math.floor(kept / 2 ** shift) % 256).join('.')}/${length}`
}

const request: FileRequest = {
  ...{
    clientAddress: '10.1.2.3',
    clientName: null,
    uid: 1000,
    gid: 1000,
    groups: [7, 8, 9],
    flavour: 'sys',
    operation: 'write',
  },
}

/** Who can do what: one answer, a whole matrix, and a rule found beside looking through all of them. */
export async function accessFigures(): Promise<Figure[]> {
  const rules = manyRules(0)
  const rights = { rules, root: { uid: 2001, gid: 300, mode: '0750' } }
  const state = { name: 'share', addresses: ['10.0.0.1'], freeBytes: 1n }
  const answer = await timed(15, () => fileGates(rights, state, request))
  const fresh = await timed(15, () => exportTable([...rules]))
  const turned = await timed(5, () => turningChanges(rights, request))
  const shares = Array.from({ length: shareCount }, (_, index) => ({
    rules: manyRules(index).slice(0, 20),
    root: { uid: index, gid: index % 100, mode: '0770' },
  }))
  const hosts = [{ clientAddress: '10.1.2.3', clientName: null }]
  const tables = shares.map(share => exportTable(share.rules))
  const matrix = await timed(3, () => {
    let allowed = 0
    shares.forEach(({ root }, at) => {
      const table = tables[at] ?? exportTable([])
      const rule = decidingRule(table, request)
      for (let uid = 0; uid < identityCount; uid += 1) {
        const asked = { uid, gid: uid % 100, groups: [], flavour: 'sys', operation: 'write' } as const
        if (mayBehind(table, rule, asked, root).allowed) allowed += 1
      }
    })
    return allowed
  })
  const row = await timed(5, () =>
    rightsMatrix(
      shares.map(each => ({ ...each, rules: [...each.rules] })),
      hosts,
      { uid: 7, gid: 7, groups: [] },
    ),
  )
  const table = exportTable(rules)
  const looked = await timed(5, () => {
    for (let at = 0; at < lookups; at += 1) decidingRule(table, request)
  })
  const scanned = await timed(1, () => {
    for (let at = 0; at < lookups / 1000; at += 1) rules.findIndex(({ client }) => 'why' in readClient(client))
  })
  const [each, whole] = [looked.median / lookups, (scanned.median * 1000) / lookups]
  return [
    under(`Who can, every gate, with ${ruleCount.toLocaleString('en')} export rules`, answer, 5),
    under('Those rules read anew', fresh, 20),
    under('What would turn that answer, found by search', turned, 100),
    under(`${shareCount} shares by ${identityCount.toLocaleString('en')} identities`, matrix, 2000),
    under(`What somebody may with ${shareCount} shares, their rules read anew`, row, 100),
    {
      what: `The rule of ${ruleCount.toLocaleString('en')} that decides, beside looking through all of them`,
      measured: `${(whole / each).toFixed(0)} times as fast (${(each * 1e6).toFixed(0)} ns)`,
      wanted: 'faster',
      holds: each < whole,
    },
  ]
}
