import { readHostLines, suggestedLine } from '.'

test.each([
  ['iqn.2019-04.example.marrowfield:scanner-gate', 'ct-scans', 'scanner-gate,ct-scans'],
  ['iqn.2019-04.example.marrowfield:desk-1', undefined, 'desk-1,desk-1'],
  ['21:00:00:24:ff:4a:bc:de', 'Tickets!', 'host-bcde,tickets'],
  ['nqn.2014-08.org.nvmexpress:uuid:0192f8f4-7a1c-7000', undefined, '0192f8f4-7a1c-7000,0192f8f4-7a1c-7000'],
])('%s in %s is suggested as %s', (initiator, group, called) =>
  expect(suggestedLine(initiator, group)).toBe(`${called},${initiator}`),
)

test('what is suggested can be registered as it stands, whatever a name or a group has in it', () => {
  const read = readHostLines(suggestedLine('iqn.2019-04.example.marrowfield:scanner-gate', 'a, "b"\nc'))
  expect(read.troubles).toEqual([])
  expect(read.hosts).toMatchObject([
    { name: 'scanner-gate', groupName: 'a-b-c', initiators: ['iqn.2019-04.example.marrowfield:scanner-gate'] },
  ])
  // A name that is none of a known kind is told as such in the form, and breaks no other line.
  expect(readHostLines(suggestedLine('<script>,"x"', undefined))).toMatchObject({ hosts: [], troubles: [{ line: 1 }] })
})
