import type { Directory } from '../estate'
import { sampleFileService, sampleId, samplePrincipal, sampleShare } from '../estate/testing/samples'
import { directoryFindings } from '.'

const directory: Directory = {
  ...{
    id: sampleId(89),
    name: 'museum',
    address: 'ldaps://d',
    fingerprint: 'AA',
    baseDn: 'dc=Example',
    readAs: 'cn=r',
  },
  ...{ state: 'answering', stateWhy: null, readAt: null, personCount: 1, groupCount: 1, revision: 1 },
}
const service = sampleFileService({ joinedTo: 'dc=example' })
const share = sampleShare({
  grants: [
    { who: 'me', name: 'Alva', right: 'read' },
    { who: '*', name: 'everybody', right: 'read' },
  ],
})
const checks = (...asked: Parameters<typeof directoryFindings>) =>
  directoryFindings(...asked).map(({ check, gravity }) => [check, gravity])

test('where the directory answers and has everybody, nothing is found; a service that has joined none needs none', () => {
  expect(checks([service], [share], [directory], [samplePrincipal()])).toEqual([])
  expect(checks([sampleFileService()], [share], [], [])).toEqual([])
})

test('a directory that does not answer, and one that nobody has registered, are told with what they put at risk', () => {
  const silent: Directory = { ...directory, state: 'not answering', stateWhy: 'It did not answer in time.' }
  const [found] = directoryFindings([service], [share], [silent], [])
  expect(found).toMatchObject({ check: 'directory-silent', gravity: 'soon', evidence: 'It did not answer in time.' })
  expect(found?.risk).toContain('refused at scans')
  expect(directoryFindings([service], [], [silent], [])[0]?.risk).toBe('Nothing is shared over SMB yet.')
  expect(checks([service], [share], [], [])).toEqual([['directory-unknown', 'note']])
})

test('a grant for whom there is nobody any more is told, with a draft without it', () => {
  const gone = samplePrincipal({ goneSince: '2026-10-01T00:00:00.000Z' })
  expect(checks([service], [share], [directory], [samplePrincipal({ id: sampleId(92) }), gone])).toEqual([])
  const [found] = directoryFindings([service], [share], [directory], [gone])
  expect(found?.check).toBe('grant-gone')
  expect(found?.draft?.intent).toMatchObject({ grants: [{ who: '*' }], mode: share.mode })
})
