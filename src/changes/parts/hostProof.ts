import type { AskedHost, Host as HostRecord } from '@/core/estate'
import type { ChangePorts, Host, HostDevice } from '@/ports'
import type { Evidence } from '../ChangeKind'

const sampleBytes = 1_048_576
const sample = BigInt(sampleBytes)

/** Logs a host in to all targets and rescans; @returns what it sees under a name */
export async function lookFrom(
  ports: ChangePorts,
  host: Pick<AskedHost, 'agentAddress'>,
  targets: readonly string[],
  naa: string,
): Promise<{ readonly agent: Host; readonly device: HostDevice | undefined }> {
  const agent = await ports.host(host.agentAddress)
  for (const target of targets) await agent.login(target)
  const device = (await agent.rescan()).find(each => each.naa === naa)
  return { agent, device }
}

/** That a host sees a volume with its size. */
export const seesIt = (host: HostRecord, device: HostDevice | undefined, naa: string, sizeBytes: bigint): Evidence => ({
  claim: `${host.name} sees the volume with its full size`,
  holds: device?.sizeBytes === sizeBytes,
  measured: {
    wwn: naa,
    seenBytes: `${device?.sizeBytes ?? 'nothing'}`,
    expectedBytes: `${sizeBytes}`,
    ...(device === undefined ? {} : { lun: `${device.lun}`, path: device.path }),
  },
})

/** That a host outside the group does not see it. */
export const seesItNot = (host: HostRecord, device: HostDevice | undefined, naa: string): Evidence => ({
  claim: `${host.name}, which is not in the group, does not see it`,
  holds: device === undefined,
  measured: { wwn: naa, seen: device === undefined ? 'nothing' : device.path },
})

/**
 * Writes samples at the beginning, in the middle and at the end of a range that holds no data, reads them back and gives them up again.
 * The host computes the sum of what it writes before it is sent, so that what is compared has really been stored.
 */
export async function writesAndReadsBack(
  agent: Host,
  host: HostRecord,
  naa: string,
  fromBytes: bigint,
  toBytes: bigint,
  seed: string,
): Promise<Evidence[]> {
  const aligned = (at: bigint) => (at / sample) * sample
  const places = [
    ...new Set([aligned(fromBytes + sample - 1n), aligned((fromBytes + toBytes) / 2n), aligned(toBytes - sample)]),
  ].filter(at => at >= fromBytes && at + sample <= toBytes)
  const evidence: Evidence[] = []
  for (const offset of places) {
    const sent = await agent.write(naa, offset, sampleBytes, `${seed}/${offset}`)
    const read = await agent.read(naa, offset, sampleBytes)
    await agent.discard(naa, offset, sampleBytes)
    evidence.push({
      claim: `${host.name} writes 1 MiB at byte ${offset} and reads the same back`,
      holds: sent === read,
      measured: { offsetBytes: `${offset}`, lengthBytes: `${sampleBytes}`, writtenSha256: sent, readSha256: read },
    })
  }
  return evidence
}

/** Writes a file of our own to what is mounted, reads it back and removes it. */
export async function readsBackFile(agent: Host, host: HostRecord, mountedAt: string, seed: string): Promise<Evidence> {
  const file = `${mountedAt}/.wendrel-test`
  const written = await agent.writeFile(file, sampleBytes, seed)
  const read = await agent.readFile(file)
  await agent.removeFile(file)
  return {
    claim: `${host.name} writes a file at ${mountedAt} and reads the same back`,
    holds: read === written,
    measured: { file, bytes: `${sampleBytes}`, writtenSha256: written, readSha256: read ?? 'no file' },
  }
}
