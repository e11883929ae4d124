import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { cpus, tmpdir, totalmem } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { startPostgres } from '../commands/postgres'
import { bayFigures } from './bayFigures'
import { clusterFigures } from './clusterFigures'
import { coreFigures } from './coreFigures'
import type { Figure } from './measure'
import { probeFigures } from './probeFigures'
import { recordsFigures } from './recordsFigures'

/** Runs the benchmarks and writes docs/benchmarks.md. @returns 1 where a figure is not reached */
export async function bench(folder: string): Promise<number> {
  const data = mkdtempSync(join(tmpdir(), 'wendrel-bench-'))
  const postgres = await startPostgres(data)
  const figures: Figure[] = []
  try {
    figures.push(
      ...(await coreFigures()),
      ...(await clusterFigures()),
      ...(await probeFigures()),
      ...(await recordsFigures(postgres.ownerUrl)),
      ...(await bayFigures(folder)),
    )
  } finally {
    postgres.stop()
    rmSync(data, { recursive: true, force: true })
  }
  const script = pageScript(folder)
  if (script !== undefined) figures.push(script)
  const lines = figures.map(
    figure => `| ${figure.what} | ${figure.measured} | ${figure.wanted} | ${figure.holds ? 'yes' : '**no**'} |`,
  )
  const machine = `${cpus()[0]?.model ?? 'unknown processor'}, ${cpus().length} cores, ${Math.round(totalmem() / 1e9)} GB, Node ${process.versions.node}`
  const text = [
    '# Benchmarks',
    '',
    `${new Date().toISOString().slice(0, 10)}, on ${machine}. Made by \`./wendrel bench\`; medians.`,
    '',
    '| what | measured | to reach | reached |',
    '|---|---|---|---|',
    ...lines,
    '',
  ].join('\n')
  writeFileSync(join(folder, 'docs', 'benchmarks.md'), text)
  process.stdout.write(`${text}\n`)
  return figures.every(figure => figure.holds) ? 0 : 1
}

/** The script of the first load of Today, compressed, from the last build. */
function pageScript(folder: string): Figure | undefined {
  const manifest = join(folder, '.next', 'build-manifest.json')
  const listed = join(folder, '.next/server/app/(signed)/page_client-reference-manifest.js')
  try {
    const { rootMainFiles } = JSON.parse(readFileSync(manifest, 'utf8')) as { rootMainFiles: string[] }
    const chunks = new Set(rootMainFiles)
    for (const match of readFileSync(listed, 'utf8').matchAll(/static\/chunks\/[\w.-]+\.js/g)) chunks.add(match[0])
    const bytes = [...chunks].reduce(
      (sum, chunk) => sum + gzipSync(readFileSync(join(folder, '.next', chunk)), { level: 9 }).length,
      0,
    )
    return {
      what: 'Script of the first load of Today, gzip',
      measured: `${Math.round(bytes / 1000)} kB`,
      wanted: 'under 180 kB',
      holds: bytes < 180_000,
    }
  } catch {
    return undefined // nothing has been built yet
  }
}
