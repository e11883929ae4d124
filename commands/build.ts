import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { build as bundle } from 'esbuild'
import { CommandRefused } from './CommandRefused'
import { projectFolder } from './paths'

const built = join(projectFolder, '.built')
export const programs = {
  web: join(built, 'web.mjs'),
  worker: join(built, 'worker.mjs'),
  standins: join(built, 'standins.mjs'),
}

function filesBelow(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap(entry =>
    entry.isDirectory() ? filesBelow(join(folder, entry.name)) : [join(folder, entry.name)],
  )
}

/** What the built programs rest on: every source file but tests, the locked packages, and the settings of the build. */
function sourceDigest(): string {
  const hash = createHash('sha256')
  const settings = ['package.json', 'package-lock.json', 'next.config.ts', 'tsconfig.json', 'postcss.config.mjs'].map(
    name => join(projectFolder, name),
  )
  const sources = ['src', 'commands'].flatMap(folder => filesBelow(join(projectFolder, folder)).sort())
  for (const file of [...sources, ...settings]) {
    if (/\.test\.tsx?$/.test(file) || !existsSync(file)) continue
    hash.update(file.slice(projectFolder.length)).update(readFileSync(file))
  }
  return hash.digest('hex')
}

/**
 * Builds web server, worker, stand-ins and pages, unless they were built from just these sources. The stamp is as old as their reading:
 * by that the start command sees, without reading them, that none has been written since.
 */
export async function buildWhenStale(say: (line: string) => void): Promise<void> {
  const stamp = join(built, 'digest')
  // What is written while it is built is newer than what was read for it.
  const readAt = new Date()
  const digest = sourceDigest()
  const isFresh =
    existsSync(stamp) && readFileSync(stamp, 'utf8') === digest && existsSync(join(projectFolder, '.next', 'BUILD_ID'))
  if (isFresh) return utimesSync(stamp, readAt, readAt)
  say('building (about half a minute, only after a change of the sources)')
  mkdirSync(built, { recursive: true })
  await bundlePrograms()
  buildPages()
  writeFileSync(stamp, digest)
  utimesSync(stamp, readAt, readAt)
}

function bundlePrograms() {
  return bundle({
    entryPoints: {
      begin: join(projectFolder, 'commands/begin.ts'),
      web: join(projectFolder, 'src/web/main.ts'),
      worker: join(projectFolder, 'src/worker/main.ts'),
      standins: join(projectFolder, 'src/standins/main.ts'),
    },
    outdir: built,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    packages: 'external',
    sourcemap: true,
    logLevel: 'error',
    tsconfig: join(projectFolder, 'tsconfig.json'),
  })
}

function buildPages(): void {
  const ran = spawnSync(process.execPath, [join(projectFolder, 'node_modules/next/dist/bin/next'), 'build'], {
    cwd: projectFolder,
    encoding: 'utf8',
    env: {
      ...process.env,
      NEXT_TELEMETRY_DISABLED: '1',
      DATABASE_URL: 'postgres://nobody@127.0.0.1:1/none',
      WENDREL_KEY_FILE: join(built, 'build-key'),
    },
  })
  if (ran.status !== 0)
    throw new CommandRefused(
      `The pages were not built:\n${ran.stdout}${ran.stderr}`.slice(0, 4000),
      'Mend what it names; ./wendrel test says more.',
    )
}
