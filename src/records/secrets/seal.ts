import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto'
import { chmodSync, existsSync, readFileSync, writeFileSync } from 'node:fs'
import { SecretUnreadable } from './errors'

const algorithm = 'aes-256-gcm'
const nonceBytes = 12
const tagBytes = 16

/** Reads the key of 32 bytes that seals secrets, or makes it, readable by its owner alone. */
export function keyAt(path: string): Buffer {
  if (!existsSync(path)) {
    writeFileSync(path, randomBytes(32).toString('base64'), { mode: 0o600, flag: 'wx' })
    chmodSync(path, 0o600)
  }
  const key = Buffer.from(readFileSync(path, 'utf8').trim(), 'base64')
  if (key.length !== 32) throw new SecretUnreadable(`The key file ${path} does not hold 32 bytes.`)
  return key
}

/** The key of this process: WENDREL_KEY in base64, or the file that WENDREL_KEY_FILE names. */
export function ownKey(): Buffer {
  const given = process.env['WENDREL_KEY']
  if (given === undefined) return keyAt(process.env['WENDREL_KEY_FILE'] ?? '.data/key')
  const key = Buffer.from(given, 'base64')
  if (key.length !== 32) throw new SecretUnreadable('WENDREL_KEY does not hold 32 bytes.')
  return key
}

/** Seals a secret: nonce, tag and cipher text in one piece. `context` binds it to its place, so that it cannot be moved to another. */
export function seal(key: Buffer, secret: string, context: string): Buffer {
  const nonce = randomBytes(nonceBytes)
  const cipher = createCipheriv(algorithm, key, nonce).setAAD(Buffer.from(context))
  const text = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()])
  return Buffer.concat([nonce, cipher.getAuthTag(), text])
}

/** @throws {SecretUnreadable} where the key or the place is another */
export function unseal(key: Buffer, sealed: Buffer, context: string): string {
  try {
    const decipher = createDecipheriv(algorithm, key, sealed.subarray(0, nonceBytes)).setAAD(Buffer.from(context))
    decipher.setAuthTag(sealed.subarray(nonceBytes, nonceBytes + tagBytes))
    return Buffer.concat([decipher.update(sealed.subarray(nonceBytes + tagBytes)), decipher.final()]).toString('utf8')
  } catch (cause) {
    throw new SecretUnreadable('It was sealed with another key.', { cause })
  }
}
