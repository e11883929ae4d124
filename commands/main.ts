import { CommandRefused } from './CommandRefused'
import { dataFolder, projectFolder } from './paths'

const help = `./wendrel <word>
  demo         install what is missing, start everything with the simulated fleet and its estate, print the address
  start        the same without fleet and demo data
  stop         end what runs on the data folder
  reset        empty the data folder (asks; --yes)
  test [PART]  every check and every test, or a part; test kills kills every process in every kind of change
  build        what was not built yet from just these sources; demo and start do it by themselves
  bench        the benchmarks; results in docs/benchmarks.md
  vectors DIR [SUBJECT …]  put the worked cases of a folder to core, all or some
  fleet …      the simulated fleet's clock and faults: fleet rate 600, fleet fault heron slow, fleet clear
DATABASE_URL uses any PostgreSQL; WENDREL_DATA another data folder; PORT another port.
`

async function act(word: string | undefined, rest: readonly string[]): Promise<number> {
  switch (word) {
    case 'build':
      await (await import('./build')).buildWhenStale(line => process.stdout.write(`  ${line}\n`))
      return 0
    case 'stop':
      await (await import('./stop')).stop(dataFolder())
      return 0
    case 'reset':
      await (await import('./reset')).reset(dataFolder(), rest.includes('--yes'))
      return 0
    case 'fleet':
      process.stdout.write(`${JSON.stringify(await (await import('./fleet')).fleet(dataFolder(), rest), null, 2)}\n`)
      return 0
    case 'test':
      return (await import('./test')).test(projectFolder, rest[0])
    case 'bench':
      return (await import('../bench/run')).bench(projectFolder)
    case 'vectors': {
      if (rest[0] === undefined) throw new CommandRefused('Which folder?', './wendrel vectors DIR [SUBJECT …]')
      const { runVectors } = await import('./vectors')
      return runVectors(rest[0], line => process.stdout.write(`${line}\n`), rest.slice(1)) === 0 ? 0 : 1
    }
    default:
      process.stdout.write(help)
      return word === undefined || word === 'help' || word === '--help' ? 0 : 2
  }
}

const [word, ...rest] = process.argv.slice(2)
try {
  process.exitCode = await act(word, rest)
} catch (cause) {
  if (!(cause instanceof CommandRefused)) throw cause
  process.stderr.write(`${cause.message}\n${cause.wayOut}\n`)
  process.exitCode = 1
}
