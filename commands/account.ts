import { spawnSync } from 'node:child_process'
import { accessSync, constants } from 'node:fs'

/** Under whom web and worker run when root starts them: an account of the system's that owns nothing. */
export interface Account {
  readonly uid: number
  readonly gid: number
}

const name = 'wendrel'

function idOf(flag: '-u' | '-g'): number | undefined {
  const ran = spawnSync('id', [flag, name], { encoding: 'utf8' })
  return ran.status === 0 ? Number(ran.stdout) : undefined
}

/**
 * The account under which web and worker run: undefined where we are not root and so have nothing to give up, or where it cannot read
 * the program.
 * @param program a file that the processes have to read
 * @param say is told where root is kept, and why
 */
export function serviceAccount(program: string, say: (line: string) => void): Account | undefined {
  if (process.getuid?.() !== 0) return undefined
  if (idOf('-u') === undefined)
    spawnSync('useradd', [
      '--system',
      '--no-create-home',
      '--home-dir',
      '/nonexistent',
      '--shell',
      '/usr/sbin/nologin',
      name,
    ])
  const [uid, gid] = [idOf('-u'), idOf('-g')]
  if (uid === undefined || gid === undefined) {
    say(`web and worker keep root: the account ${name} could not be made`)
    return undefined
  }
  accessSync(program, constants.R_OK)
  const isReadable = spawnSync('test', ['-r', program], { uid, gid }).status === 0
  if (!isReadable)
    say(`web and worker keep root: the account ${name} cannot read ${program}; open its folders to others`)
  return isReadable ? { uid, gid } : undefined
}
