import { Client } from 'ldapts'
import { execFile } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { promisify } from 'node:util'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { seedDirectory } from '../demo/seedDirectory'
import { Faults, Store } from '../fleet'
import { baseDn, DirectoryServer, DirectoryTree } from '.'

const store = new Store(mkdtempSync(join(tmpdir(), 'directory-')))
const tree = new DirectoryTree(store)
seedDirectory(tree)
const server = new DirectoryServer(tree, new Faults())
let client: Client
let url = ''
beforeAll(async () => {
  const port = await server.listen(0)
  url = `ldaps://127.0.0.1:${port}`
  client = new Client({ url, tlsOptions: { rejectUnauthorized: false } })
})
afterAll(async () => {
  await client.unbind()
  await server.stop()
})
const signIn = () => client.bind(`cn=reader,ou=services,${baseDn}`, 'directory-demo')
const found = async (base: string, scope: 'base' | 'one' | 'sub', filter: string) =>
  (await client.search(base, { scope, filter })).searchEntries.map(({ dn }) => String(dn).split(',')[0])

test('it says of itself what everybody may know, and tells nobody else who has not signed in', async () => {
  const { searchEntries } = await client.search('', {
    ...{ scope: 'base' as const, filter: '(objectClass=*)', attributes: ['NamingContexts', 'supportedLDAPVersion'] },
  })
  expect(searchEntries[0]).toMatchObject({ namingContexts: baseDn, supportedLDAPVersion: '3' })
  await expect(found(baseDn, 'sub', '(objectClass=*)')).rejects.toMatchObject({ code: 50 })
  await expect(client.bind(`uid=a.brenn,ou=people,${baseDn}`, 'wrong')).rejects.toMatchObject({ code: 49 })
  await expect(client.bind(`uid=q.holt,ou=people,${baseDn}`, 'q.holt-demo')).rejects.toMatchObject({ code: 49 })
})

test('entries are found by base, one level and subtree, by filters in any letters, page by page', async () => {
  await signIn()
  expect(await found(`ou=people,${baseDn}`, 'base', '(objectClass=*)')).toEqual(['ou=people'])
  expect(await found(baseDn, 'one', '(objectClass=organizationalUnit)')).toHaveLength(4)
  expect(await found(baseDn, 'sub', '(&(objectclass=posixGroup)(gidnumber=3100))')).toEqual(['cn=photo-studio'])
  let pages = 0
  const names = new Set<string>()
  const paged = client.searchPaginated(baseDn, { scope: 'sub', filter: '(uid=*)', paged: { pageSize: 7 } })
  for await (const { searchEntries } of paged) {
    pages += 1
    for (const { dn } of searchEntries) names.add(String(dn))
  }
  expect([pages, names.size]).toEqual([4, 24])
})

test('a client that nobody here wrote finds its way, page by page', async () => {
  // The server runs in this process: whoever asks it must not hold it up.
  const run = promisify(execFile)
  const search = async (...words: readonly string[]) =>
    (
      await run('/usr/bin/ldapsearch', ['-H', url, '-x', '-LLL', '-b', baseDn, ...words], {
        env: { ...process.env, LDAPTLS_REQCERT: 'never' },
      })
    ).stdout
  const signed = ['-D', `cn=reader,ou=services,${baseDn}`, '-w', 'directory-demo', '-E', 'pr=3/noprompt']
  const names = (await search(...signed, '(&(objectClass=groupOfNames)(cn=photo*))', 'cn', 'entryUUID')).match(
    /^cn: .*$/gm,
  )
  expect(names?.sort()).toEqual(['cn: photo-studio', 'cn: photographers'])
  expect((await search(...signed, '(|(uid=a.brenn)(sn=Stane))', 'uid')).match(/^uid: /gm)).toHaveLength(2)
  await expect(search('(uid=a.brenn)')).rejects.toThrow()
})

test('a server is taken in by an operator of the directory only, and is known by its tickets’ names; a locked account is nobody', () => {
  const dn = (account: string) => `uid=${account},ou=people,${baseDn}`
  expect(tree.join(dn('a.brenn'), 'a.brenn-demo', 'files.example')).toBe('insufficient access rights')
  expect(tree.join(dn('v.grier'), 'no', 'files.example')).toBe('invalid credentials')
  expect(tree.join(dn('v.grier'), 'v.grier-demo', 'files.example')).toBeUndefined()
  expect(tree.at(tree.computerDn('files.example'))?.attributes['servicePrincipalName']).toContain('cifs/files.example')
  expect(tree.account('q.holt')).toBeUndefined()
  expect(tree.account('D.Warrick')).toMatchObject({ gid: 3102, gids: [3102, 3100, 3000] })
  // As it was after a start.
  expect(new DirectoryTree(store).at(tree.computerDn('files.example'))).toBeDefined()
})
