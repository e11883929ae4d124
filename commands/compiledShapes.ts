import { join } from 'node:path'
import Ajv, { _ } from 'ajv/dist/2020.js'
import standalone from 'ajv/dist/standalone/index.js'
import { build } from 'esbuild'
import { formats } from '@/core/input'
import { intents } from '@/core/intents'

export const shapesFile = join(process.cwd(), 'src/ui/drafts/shapes.js')

/** For the browser: its policy lets nothing be evaluated, so a schema must not be compiled there. */
const head =
  '/* Compiled from the schemas in core/intents by `node --import tsx commands/shapes.ts`; altered there, not here. */\n'

/** The schemas of all intents as a module of functions, which take an intent and keep what is wrong with it in `errors`. */
export async function compiledShapes(): Promise<string> {
  const ajv = new Ajv({
    allErrors: true,
    strictTuples: false,
    messages: false,
    formats,
    code: { source: true, esm: true, formats: _`require("../src/core/input").formats` },
  })
  for (const { kind, intentSchema } of intents) ajv.addSchema(intentSchema, kind)
  const names = Object.fromEntries(intents.map(({ kind }) => [kind.replaceAll('-', '_'), kind]))
  const source = (standalone as unknown as (ajv: Ajv, names: object) => string)(ajv, names)
  const { outputFiles } = await build({
    stdin: { contents: source, resolveDir: join(process.cwd(), 'commands') },
    bundle: true,
    format: 'esm',
    target: 'es2022',
    minify: true,
    write: false,
  })
  return head + (outputFiles[0]?.text ?? '')
}
