import { randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { keyAt, seal, unseal } from '.'

test('what is sealed is read back with the same key and place only', () => {
  const key = randomBytes(32)
  const sealed = seal(key, 'geheim – 秘密', 'system/1')
  expect(sealed.includes('geheim')).toBe(false)
  expect(unseal(key, sealed, 'system/1')).toBe('geheim – 秘密')
  expect(() => unseal(key, sealed, 'system/2')).toThrow(expect.objectContaining({ code: 'records.secret-unreadable' }))
  expect(() => unseal(randomBytes(32), sealed, 'system/1')).toThrow(
    expect.objectContaining({ code: 'records.secret-unreadable' }),
  )
  expect(seal(key, 'geheim – 秘密', 'system/1').equals(sealed)).toBe(false)
})

test("the key file is its owner's alone, and a damaged one is refused", () => {
  const folder = mkdtempSync(join(tmpdir(), 'key-'))
  const path = join(folder, 'key')
  const key = keyAt(path)
  expect(keyAt(path).equals(key)).toBe(true)
  expect(statSync(path).mode & 0o777).toBe(0o600)
  writeFileSync(path, 'short')
  expect(() => keyAt(path)).toThrow(/32 bytes/)
  rmSync(folder, { recursive: true })
})
