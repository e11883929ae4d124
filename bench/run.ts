import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { cpus, tmpdir, totalmem } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { startPostgres } from '../commands/postgres'
import { accessFigures } from './accessFigures'
import { bayFigures } from './bayFigures'
import { clusterFigures } from './clusterFigures'
import { coreFigures } from './coreFigures'
import { exchangeFigures } from './exchangeFigures'
import { fileFigures } from './fileFigures'
import type { Figure } from './measure'
import { probeFigures } from './probeFigures'
import { growth } from './growth'
import { recordsFigures } from './recordsFigures'
import { metricFigures } from './metricFigures'
import { seriesFigures } from './seriesFigures'
import { startFigures } from './startFigures'
import { snapshotFigures } from './snapshotFigures'
import { webFigures } from './webFigures'
import { workerFigures } from './workerFigures'

/** Runs the benchmarks and writes docs/benchmarks.md. @returns 1 where a figure is not reached */
export async function bench(folder: string): Promise<number> {
  const data = mkdtempSync(join(tmpdir(), 'wendrel-bench-'))
  const postgres = await startPostgres(data)
  const figures: Figure[] = []
  const grown: string[] = []
  try {
    figures.push(
      ...(await coreFigures()),
      ...(await accessFigures()),
      ...(await fileFigures()),
      ...(await metricFigures()),
      ...(await clusterFigures()),
      ...(await probeFigures()),
      ...(await exchangeFigures()),
      // Before the large estates of the others: what the database writes for them, tidying up, would count as the worker's.
      ...(await workerFigures(postgres.ownerUrl)),
      ...(await recordsFigures(postgres.ownerUrl)),
      ...(await webFigures(postgres.ownerUrl)),
      ...(await seriesFigures(postgres.ownerUrl)),
      ...(await snapshotFigures(postgres.ownerUrl)),
      ...(await bayFigures(folder)),
      ...(await startFigures(folder)),
    )
    grown.push(...(await growth(postgres.ownerUrl)))
  } finally {
    postgres.stop()
    rmSync(data, { recursive: true, force: true })
  }
  figures.push(pageScript(folder))
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
    ...grown,
    ...before,
  ].join('\n')
  writeFileSync(join(folder, 'docs', 'benchmarks.md'), text)
  process.stdout.write(`${text}\n`)
  return figures.every(figure => figure.holds) ? 0 : 1
}

/** The script of the first load of Today, compressed, from the last build. */
function pageScript(folder: string): Figure {
  const figure = { what: 'Script of the first load of Today, gzip', wanted: 'under 180 kB' }
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
    return { ...figure, measured: `${Math.round(bytes / 1000)} kB`, holds: bytes < 180_000 }
  } catch {
    return { ...figure, measured: 'nothing is built', holds: false }
  }
}

/** What each step gained, as it was measured when it was made. */
const before = [
  '## Before and after',
  '',
  'Measured on the same machine before and after the step that made the difference.',
  '',
  '| what | before | after | by |',
  '|---|---|---|---|',
  '| Today at 20 connections, a second | 17 | 1,107 | answers that are remembered until the records change |',
  '| What an open page asks for when something has changed that it shows | 16 requests | 2 | links ask for nothing ahead |',
  '| The list of volumes by the API at 20 connections, a second | 82 | 4,986 | the same; the cookie of a session is opened once |',
  '| 200 readers, 95% within | 25 s | 0.18 s | the same |',
  '| A system with 500 drives | 363 ms, 1,564 kB | 107 ms, 211 kB | drives packed by columns; the list reads as it is scrolled |',
  '| Memory of the web process after load | 472 MB | 229 MB | the same |',
  '| 1,000,000 folders of a walk summed up | 14.2 s | 1.7 s | objects of one shape, copied by name |',
  '| Memory of a worker that looks after 100,000 volumes | 825 MB | 187 MB | members taken page by page, stored in parts |',
  '| Its processor time a minute | 17 s | 1.7 to 3.3 s | readings compared by their digest; whole ones a fiftieth of the time |',
  '| Log that the database writes for it | 99.9% of all | 10 kB a minute | nothing is written where nothing has changed |',
  "| Memory kept of 20,000 requests that are over | 1.1 MB, and on without end | 0.1 MB | a wait of its own for each, taken off the worker's stop when it is over |",
  '| Erasure 8+3 | 0.13 GB/s | 1.8 to 2.3 GB/s | split nibbles by SIMD in WebAssembly; a table read once for two columns, blocks of 8 kB |',
  '| First rows of 100,000 volumes, a tenth of them under a class | 2,406 ms | 134 ms | a class is asked once when it was due last, not for each volume |',
  '| Probe matrix of 64 nodes | 4.4 s | 0.33 s | wires read once for all packets |',
  '| Placement of 100,000 stripes | 1.0 to 1.4 s, 11 to 15 ns a draw | 0.42 s, 4.4 ns a draw | four drives at once, by SIMD in WebAssembly |',
  '| Draft of 64 nodes × 24 drives altered, from request to answer | 191 ms | 72 to 113 ms | drives are read again only where a row is another; a plan of two thirds the size; its trigger makes no text of it; what only the server looks at is not answered |',
  '| A second start of the demo | 9.5 s | 5.5 to 9.4 s | what starts it is built too; schemas are compiled when they are first used; sources that were not touched are not read |',
  '',
]
