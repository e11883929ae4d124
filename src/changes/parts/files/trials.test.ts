import { newRule } from '@/core/access'
import type { AskedHost, Share } from '@/core/estate'
import { sampleId } from '@/core/estate/testing/samples'
import type { Attempt, ChangePorts, HostShares } from '@/ports'
import { triedLimits } from './limitTrials'
import { reaching } from './reaching'
import { tried, triedFrom, type TriedShare } from './shareTrials'

const host: AskedHost = {
  ...{ id: sampleId(80), hostGroupId: sampleId(81), name: 'scan-1', agentAddress: 'http://a', operatingSystem: null },
  ...{ initiators: [], addresses: ['10.0.1.7'], signIn: 'nothing', siteId: null, revision: 1 },
}
const share = (access: 'rw' | 'ro' | 'none'): TriedShare => ({
  ...{ name: 'scans', server: 'files.example', path: '/scans', protocols: ['NFSv4_2'], grants: [] },
  rights: { rules: [{ ...newRule, client: '*', access }], root: { uid: 2001, gid: 300, mode: '0770' } },
})
const sum = { sha256: 'a'.repeat(64) }
const no = { refused: 'permission denied' }

/** A host whose server answers as it is told to; @returns what is left on it, and what is mounted */
function hostThat(answers: Partial<HostShares>) {
  const files = new Set<string>()
  const mounts = new Set<string>()
  const kept = (path: string, answer: Attempt) => {
    if ('sha256' in answer) files.add(path)
    return answer
  }
  const shares: HostShares = {
    connect: async () => ({ address: null, isOpen: true, milliseconds: 0 }),
    mounted: async () => [],
    mount: async (_server, _share, path) => void mounts.add(path),
    read: async () => sum,
    reserve: async () => 'disk quota exceeded',
    list: async () => ({ files: [], isLast: true }),
    ...answers,
    write: async (path, ...rest) => kept(path, await (answers.write ?? (async () => sum))(path, ...rest)),
    remove: async path => void files.delete(path),
  }
  const reserve = shares.reserve
  const agent = {
    shares: {
      ...shares,
      reserve: async (path: string, ...rest: [never, bigint]) => {
        const refused = await reserve(path, ...rest)
        if (refused === undefined) files.add(path)
        return refused
      },
    },
    unmount: async (path: string) => void mounts.delete(path),
  }
  return { ports: { host: async () => agent } as unknown as ChangePorts, files, mounts }
}
const fallen = (all: readonly { readonly claim: string; readonly holds: boolean }[]) =>
  all.filter(({ holds }) => !holds).map(({ claim }) => claim)
const owner = { uid: 2001, gid: 300, groups: [] }

test('a server that lets somebody write whom the rules refuse is found out, and what was written goes', async () => {
  const lax = hostThat({})
  expect(fallen(await tried(lax.ports, share('ro'), [host]))).toEqual([
    'uid 2001 from scan-1 is refused a write',
    'uid 65533 from scan-1 is refused a write',
  ])
  expect([lax.files.size, lax.mounts.size]).toEqual([0, 0])
})

test('a server that refuses whom the rules let, or lets mount whom they do not, is found out', async () => {
  const strict = hostThat({ write: async () => no })
  expect(fallen(await triedFrom(strict.ports, share('rw'), host, [owner]))).toEqual([
    'uid 2001 from scan-1 writes a file',
  ])
  const open = hostThat({ write: async () => no })
  expect(fallen(await triedFrom(open.ports, share('none'), host, [owner]))).toEqual(['scan-1 is not let mount /scans'])
  const closed = hostThat({ mount: async () => 'access denied' })
  expect(fallen(await triedFrom(closed.ports, share('rw'), host, [owner]))).toEqual(['scan-1 mounts /scans'])
})

test('bytes that come back otherwise than they went are found out', async () => {
  const other = hostThat({ read: async () => ({ sha256: 'b'.repeat(64) }) })
  expect(fallen(await triedFrom(other.ports, share('rw'), host, [owner]))).toEqual([
    'uid 2001 from scan-1 reads back what was written',
  ])
})

const quota = (path: string, of: Share['quotas'][number]['of'], hardBytes: string) => ({
  ...{ path, of, id: null, softBytes: null, hardBytes, graceDays: 7 },
})
const limited = (ports: ChangePorts, limits: Parameters<typeof triedLimits>[0]['limits']) =>
  triedLimits({ ports, share: share('rw'), host, as: owner, limits, usage: [] })
const denied = [{ pattern: '*.mp3', content: 'any' as const, verdict: 'deny' as const }]

test('limits that do not bind are found out, and nothing that was taken stays taken', async () => {
  const lax = hostThat({ reserve: async () => undefined })
  const quotas = [quota('/', 'tree', '5000'), quota('/people', 'each directory', '100')]
  expect(fallen(await limited(lax.ports, { quotas, fileRules: denied }))).toHaveLength(3)
  expect([lax.files.size, lax.mounts.size]).toEqual([0, 0])
})

test('where others write nothing is taken from them: only what is more than is left is asked for', async () => {
  const asked: bigint[] = []
  const watched = hostThat({ reserve: async (_path, _as, bytes) => (asked.push(bytes), 'disk quota exceeded') })
  expect(fallen(await limited(watched.ports, { quotas: [quota('/', 'tree', '5000')], fileRules: [] }))).toEqual([])
  expect(asked).toEqual([5001n])
})

test('a project is met at its first directory, unless a tree there leaves less', async () => {
  const asked: bigint[] = []
  const watched = hostThat({ reserve: async (_path, _as, bytes) => (asked.push(bytes), 'disk quota exceeded') })
  const loans = { ...quota('/lab', 'project', '4000'), project: { name: 'loans', alsoAt: ['/photos'] } }
  const tried = await limited(watched.ports, { quotas: [loans, quota('/photos', 'tree', '9000')], fileRules: [] })
  // In /photos the project leaves less than the tree: what the tree leaves cannot be met there.
  expect([tried.map(({ claim }) => claim), asked]).toEqual([
    [expect.stringContaining('that project loans leaves')],
    [4001n],
  ])
})

test('a host that is lost half-way gives back what it has taken', async () => {
  const lost = hostThat({
    reserve: async () => undefined,
    write: async () => {
      throw new Error('gone')
    },
  })
  const quotas = [quota('/people', 'each directory', '100')]
  await expect(limited(lost.ports, { quotas, fileRules: [] })).rejects.toThrow('gone')
  expect([lost.files.size, lost.mounts.size]).toEqual([0, 0])
})

test('what cannot be reached proves nothing: of each rule a host is asked that gets through, and where none does nothing is proven', async () => {
  const [astray, near] = [host, { ...host, id: sampleId(82), name: 'scan-2', agentAddress: 'http://b' }]
  const portsOf = (open: readonly string[]) =>
    ({
      host: async (address: string) => ({
        shares: { connect: async () => ({ address: '203.0.113.7', isOpen: open.includes(address), milliseconds: 1 }) },
      }),
    }) as unknown as ChangePorts
  const found = await reaching(portsOf(['http://b']), 'files.example', [[astray, near], [astray]])
  expect([found.hosts, fallen(found.evidence), found.evidence.length]).toEqual([[near], [], 2])
  const none = await reaching(portsOf([]), 'files.example', [[astray], [near]])
  expect([none.hosts, fallen(none.evidence)]).toEqual([[], ['A host gets through to files.example']])
  // Who answers nowhere because there is no host is no failure of the server.
  expect(await reaching(portsOf([]), 'files.example', [])).toEqual({ hosts: [], evidence: [] })
})
