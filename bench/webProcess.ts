import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import type { Sequelize } from 'sequelize'
import { firstCode } from '@/records/access'
import { programs } from '../commands/build'
import { projectFolder } from '../commands/paths'
import { production } from '../commands/processes'

const administrator = { name: 'bench', password: 'ninety-lanterns-by-the-quay' }

export type Headers = Readonly<Record<string, string>>

/** A web process upon a database. @param key that seals its secrets; one of its own where none is given */
export const startWeb = (url: string, port: number, key = randomBytes(32)): ChildProcess =>
  spawn(process.execPath, [programs.web], {
    cwd: projectFolder,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      ...production,
      DATABASE_URL: url,
      WENDREL_KEY: key.toString('base64'),
      WENDREL_PORT: `${port}`,
    },
  })

/** Makes the first administrator. @returns the cookie of a session */
export async function signedIn(address: string, database: Sequelize): Promise<string> {
  const post = (path: string, body: object) =>
    fetch(`${address}/api/v1${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
  await post('/first-administrator', { code: await firstCode({ database }), ...administrator })
  const answer = await post('/session', administrator)
  if (answer.status !== 204) throw new Error(`Nobody was signed in: ${answer.status} ${await answer.text()}`)
  return answer.headers
    .getSetCookie()
    .map(each => each.split(';')[0])
    .join('; ')
}
