import { writeFile } from 'node:fs/promises'
import { compiledShapes, shapesFile } from './compiledShapes'

/** Compiles the schemas of all intents anew, where one of them has been altered. */
await writeFile(shapesFile, await compiledShapes())
