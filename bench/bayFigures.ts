import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { build } from 'esbuild'
import { chromium as chromiumHere } from '../commands/chromium'
import type { Figure } from './measure'
import type { BayTimes } from './page/bays'

const turns = 5
const middle = (values: readonly number[], at = 0.5) =>
  [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) * at)] ?? Number.NaN

/** The bays of two thousand drives in Chromium, as the pages draw them, on a page with nothing else. */
export async function bayFigures(folder: string): Promise<Figure[]> {
  const { outputFiles } = await build({
    entryPoints: [join(folder, 'bench/page/bays.tsx')],
    bundle: true,
    write: false,
    jsx: 'automatic',
    define: { 'process.env.NODE_ENV': '"production"' },
    logLevel: 'silent',
  })
  const browser = await chromium.launch({
    executablePath: chromiumHere,
    args: ['--no-sandbox', '--disable-gpu'],
  })
  const times: BayTimes[] = []
  try {
    for (let turn = 0; turn < turns; turn += 1) {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
      await page.setContent('<style>:root { --ink: #23201b; --sheet: #fffdf7; --rule: #d8d0bf }</style><body></body>')
      await page.addScriptTag({ content: outputFiles[0]?.text ?? '' })
      times.push(await page.evaluate(() => (window as unknown as { measure: () => Promise<BayTimes> }).measure()))
      await page.close()
    }
  } finally {
    await browser.close()
  }
  const drives = times[0]?.drives ?? 0
  const first = middle(times.map(each => each.firstPaint))
  const hovers = times.flatMap(each => each.hovers)
  const [usual, slow] = [middle(hovers), middle(hovers, 0.95)]
  return [
    {
      what: `Bays of ${drives.toLocaleString('en')} drives: from mounting to painted, in Chromium`,
      measured: `${first.toFixed(0)} ms`,
      wanted: 'under 300 ms',
      holds: first < 300,
    },
    {
      what: `Pointing at a bay among ${drives.toLocaleString('en')}, until its words stand there (${hovers.length} times)`,
      measured: `${usual.toFixed(1)} ms, 95% under ${slow.toFixed(1)} ms`,
      wanted: 'under 16 ms',
      holds: slow < 16,
    },
  ]
}
