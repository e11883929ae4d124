import { sampleDrive } from '@/core/estate/testing/samples'
import { csvOf } from './csvOf'

test('a comma, a quote and a line break in a name stay one field', () => {
  const leftOver = { system: null, lastUsedAt: null, partitions: ['a "b", c'] }
  const lines = csvOf([
    { drive: sampleDrive(1, { leftOver }), systemName: 'kiln, hill', place: 'bay 1', suggestion: null },
  ]).split('\r\n')
  expect(lines[0]).toMatch(/^serial,system,place/)
  expect(lines[1]).toBe('SER1,"kiln, hill",bay 1,SSD,NVMe,8000000000000,m,,foreign,,"a ""b"", c"')
  expect(lines).toHaveLength(3)
})
