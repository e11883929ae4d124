import { evidenceOf } from '@/records/changes'
import { blocks } from './blocks'

/** What a file service of tests is called. */
export const server = 'files.canal.marrowfield.example'

/** An export rule that takes root away and lets sign in by numbers. */
export const rule = (client: string, access: string, more: object = {}) => ({
  client,
  access,
  squash: 'root',
  anonUid: 65_534,
  anonGid: 65_534,
  flavours: ['sys'],
  ...more,
})
/** register-1 may write, its neighbours only read; the backup host is root to it; no rule is for anybody else. */
export const rules = [
  rule('10.60.30.11', 'rw'),
  rule('10.60.30.0/24', 'ro'),
  rule('10.60.9.12', 'ro', { squash: 'none' }),
]

/** A workbench with bittern, which can serve files. */
export async function sharing() {
  const bench = await blocks()
  const bittern = await bench.registered('bittern')
  const service = (more: object = {}) => ({
    systemId: bittern,
    name: server,
    firstAddress: '10.60.2.40/24',
    nameServers: '',
    searchSuffixes: '',
    ...more,
  })
  const asked = async (more: object = {}) => {
    const { pools, fileServices } = await bench.estate()
    return {
      fileServiceId: fileServices[0]?.id ?? '',
      name: 'ct-archive',
      size: '64 MiB',
      poolId: pools.find(({ name }) => name === 'bittern-bulk-01')?.id,
      classId: '',
      ownerUid: 2001,
      ownerGid: 300,
      mode: '2770',
      rules,
      ...more,
    }
  }
  const shareId = async () =>
    (await bench.estate([{ kind: 'shares', field: 'name', values: ['ct-archive'] }])).shares[0]?.id ?? ''
  return {
    ...{ ...bench, bittern, service, asked, shareId },
    control: (fault: object) =>
      fetch(`http://127.0.0.1:${bench.fleet.ports.control}/faults`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ target: 'bittern', ...fault }),
      }),
    /** What the proof of a change has claimed; what did not hold begins with NOT. */
    evidence: async (id: string) =>
      (await evidenceOf({ database: bench.database }, id)).map(({ claim, holds }) => `${holds ? '' : 'NOT '}${claim}`),
    /** Serves files and shares ct-archive. @returns the share's id */
    shared: async () => {
      await bench.done('serve-files', service())
      await bench.done('provision-share', await asked())
      return shareId()
    },
  }
}
