import { spawn } from 'node:child_process'
import { takeOverScripts } from '@/core/network'
import { connectFromHost } from '@/looking'
import { sharePage, standingFindings } from '@/records/queries'
import { resume } from '@/drafting'
import { run } from '@/records/database'
import { rule, rules, server, sharing } from './testing/sharing'
import { tester } from './testing/workbench'

let bench: Awaited<ReturnType<typeof sharing>>
let shareId = ''
beforeAll(async () => {
  bench = await sharing()
  shareId = await bench.shared()
})
afterAll(() => bench.close())

/** What a fault says that is not of its kind. */
const harmless = { milliseconds: 0, retryAfterSeconds: 0, atRatio: 0, drive: '', times: 0 }

test('a rule for a host by its name decides for whom the name server calls so, and is proven by that host', async () => {
  const name = 'register-one.canal.marrowfield.example'
  await bench.control({ kind: 'address-record', name, address: '10.60.30.11' })
  const byName = [rule(name.toUpperCase(), 'rw', { squash: 'none' }), rule('10.60.0.0/16', 'ro')]
  const asked = { shareId, ownerUid: 2001, ownerGid: 300, mode: '2770' }
  const change = await bench.done('set-share-rights', { ...asked, rules: byName })
  const claims = await bench.evidence(change.id)
  expect(claims).toContain('uid 2001 from register-1 writes a file')
  expect(claims.filter(claim => claim.includes('is refused a write') && claim.includes('uid 2001'))).not.toEqual([])
  const page = await sharePage({ database: bench.database }, shareId)
  expect(page?.hosts.find(each => each.name === 'register-1')?.clientName).toBe(name)
  await bench.done('set-share-rights', { ...asked, rules })
  await bench.control({ kind: 'address-record', name: '', address: '10.60.30.11' })
})

test('somebody tries it from a host that restarts between, and finds it mounted again', async () => {
  const trial = { shareId, hostId: bench.ids['register-1'], uid: 2001, gid: 300, groups: [], isRestarted: true }
  const change = await bench.done('test-share', trial)
  expect(await bench.evidence(change.id)).toContain('register-1 has restarted and mounts /ct-archive again by itself')
  expect(await bench.refused('test-share', { ...trial, hostId: '' })).toEqual(['host'])
})

test('a barred way is found at its hop; by another address the host gets through', async () => {
  const bar = (kind: string, address: string) => bench.control({ kind, name: '10.60.30.11', address })
  const trial = { shareId, hostId: bench.ids['register-1'], uid: 2001, gid: 300, groups: [], isRestarted: false }
  await bar('way-barred', '10.60.2.40')
  const around = await bench.done('test-share', trial)
  expect((await bench.evidence(around.id)).slice(0, 3)).toEqual([
    `register-1 looks up ${server}, and is led to one of its addresses`,
    'register-1 gets through to 10.60.2.41, port 2049',
    'register-1 mounts /ct-archive',
  ])
  await bar('way-barred', '10.60.2.41')
  const stuck = await bench.carriedOut('test-share', trial)
  expect(stuck.state).toBe('unproven')
  expect((await bench.evidence(stuck.id)).at(-1)).toBe('NOT register-1 gets through to 10.60.2.40, port 2049')
  await bar('way-open', '10.60.2.40')
  await bar('way-open', '10.60.2.41')
  // For a day nobody looks at it; then it is proven at the second try, and has not taken that day.
  const scope = { database: bench.database }
  const aDayAgo =
    "update changes set carried_out_at = carried_out_at - interval '1 day', ended_at = ended_at - interval '1 day' where id = $1"
  await run(scope, aDayAgo, [stuck.id])
  await resume(bench.database, stuck.id, false, tester)
  const proven = await bench.ended(stuck.id)
  expect(proven.state).toBe('proven')
  expect(proven.tookSeconds).toBeLessThan(7200)
})

test('the name of an old server is turned over and given back by the scripts, as a host sees it', async () => {
  const oldName = 'oldfiles.marrowfield.example'
  await bench.control({ kind: 'name-record', name: oldName, address: '10.60.9.99' })
  const scripts = takeOverScripts({ oldName, addresses: ['10.60.9.99'], newName: server, account: null })
  const update = (script: string) =>
    new Promise<boolean>(done => {
      const run = spawn('/usr/bin/nsupdate', [], { stdio: ['pipe', 'ignore', 'ignore'] })
      run.on('close', code => done(code === 0))
      run.stdin.end(`server 127.0.0.1 ${bench.fleet.ports.names}\n${script}`)
    })
  const sees = async () => {
    const { signal } = new AbortController()
    const hostId = bench.ids['register-1'] ?? ''
    const { address, isOpen } = await connectFromHost({ database: bench.database }, bench.key, hostId, oldName, signal)
    return [address, isOpen]
  }
  expect(await sees()).toEqual(['10.60.9.99', false])
  expect(await update(scripts.names)).toBe(true)
  expect(await sees()).toEqual(['10.60.2.40', true])
  // What was seen stands no more: turned over again, nothing is changed.
  expect(await update(scripts.names)).toBe(false)
  expect(await update(scripts.namesBack)).toBe(true)
  expect(await sees()).toEqual(['10.60.9.99', false])
})

test('a controller goes away under a mounted share: another answers at its address', async () => {
  bench.fleet.faults.inject({ kind: 'controller-down', target: 'bittern', controller: 'A', ...harmless })
  const trial = { shareId, hostId: bench.ids['register-1'], uid: 2001, gid: 300, groups: [], isRestarted: false }
  await bench.done('test-share', trial)
  expect((await bench.estate()).fileServices[0]?.instances[0]?.standsOn).toBe('Controller B')
  const checks = async () =>
    (await standingFindings({ database: bench.database }, null)).map(({ finding }) => finding.check)
  await bench.until(async () => (await checks()).includes('file-address-moved'), 'the address is found to have moved')
  bench.fleet.faults.clear()
})
