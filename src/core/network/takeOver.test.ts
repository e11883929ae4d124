import { movedPaths, takeOverScripts, takeOverTrouble, type TakenName } from './takeOver'

const taken: TakenName = {
  ...{ oldName: 'oldfiles.example', newName: 'files.example' },
  ...{ addresses: ['10.0.0.9', 'fd00::9'], account: 'cn=files,ou=computers,dc=example' },
}

test('a name is turned over only where what was seen still stands, and given back only where the alias does', () => {
  const { names, namesBack } = takeOverScripts(taken)
  expect(names).toBe(
    [
      'prereq yxrrset oldfiles.example. IN A 10.0.0.9',
      'prereq yxrrset oldfiles.example. IN AAAA fd00::9',
      'update delete oldfiles.example. A',
      'update delete oldfiles.example. AAAA',
      'update add oldfiles.example. 300 IN CNAME files.example.',
      'send',
      '',
    ].join('\n'),
  )
  expect(namesBack).toBe(
    [
      'prereq yxrrset oldfiles.example. IN CNAME files.example.',
      'update delete oldfiles.example. CNAME',
      'update add oldfiles.example. 300 IN A 10.0.0.9',
      'update add oldfiles.example. 300 IN AAAA fd00::9',
      'send',
      '',
    ].join('\n'),
  )
})

test('tickets are asked for by the old name too; an account of other letters is given in base64', () => {
  expect(takeOverScripts(taken).tickets).toContain(
    'add: servicePrincipalName\nservicePrincipalName: cifs/oldfiles.example',
  )
  expect(takeOverScripts(taken).ticketsBack).toContain('delete: servicePrincipalName')
  expect(takeOverScripts({ ...taken, account: null })).toMatchObject({ tickets: null, ticketsBack: null })
  const { tickets } = takeOverScripts({ ...taken, account: 'cn=Präparate,dc=example' })
  const [, encoded = ''] = /^dn:: (\S+)$/m.exec(tickets ?? '') ?? []
  expect(Buffer.from(encoded, 'base64').toString()).toBe('cn=Präparate,dc=example')
})

test.each([
  ['oldfiles', /in full/],
  ['-old.example', /in full/],
  ['old.example\nupdate delete other.example.', /in full/],
  ['FILES.example', /service itself/],
])('%s cannot be taken over', (oldName, why) => expect(takeOverTrouble({ ...taken, oldName })).toMatch(why))

test.each(['files', 'files.example\nupdate delete example.', 'files.example; send', ''])(
  'no script is made of a service that its system calls %j',
  newName => expect(takeOverTrouble({ ...taken, newName })).toMatch(/none that a name server can lead to/),
)

test('a name that leads nowhere is told so; one that can be taken over is not barred', () => {
  expect(takeOverTrouble({ ...taken, addresses: [] })).toMatch(/leads nowhere/)
  expect(takeOverTrouble(taken)).toBeUndefined()
})

test('old paths are told with where they lie now, and whether clients keep them', () => {
  const shares = [
    { name: 'scans', path: '/scans', isNfs: true },
    { name: 'photos', path: '/photos', isNfs: false },
  ]
  const text = '/scans\n/vol/pics, photos\n//oldfiles.example/photos → photos\n\n/gone\n/x -> none'
  expect(movedPaths(text, 'oldfiles.example', shares)).toEqual([
    { oldPath: '/scans', share: 'scans', isKept: true, newPath: '/scans' },
    { oldPath: '/vol/pics', share: 'photos', isKept: false, newPath: '//oldfiles.example/photos' },
    { oldPath: '//oldfiles.example/photos', share: 'photos', isKept: true, newPath: '//oldfiles.example/photos' },
    { oldPath: '/gone', share: undefined, isKept: false, newPath: undefined },
    { oldPath: '/x', share: undefined, isKept: false, newPath: undefined },
  ])
})
