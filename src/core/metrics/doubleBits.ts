import type { ByteReader, ByteWriter } from './Bytes'

const bytesOfDouble = 8

/** Which bytes differ from those of the value before: how many lead and trail that do not, then those between. */
export function writeBits(writer: ByteWriter, values: readonly number[]): void {
  const view = new DataView(new ArrayBuffer(bytesOfDouble))
  let last = 0n
  for (const value of values) {
    view.setFloat64(0, value)
    const bits = view.getBigUint64(0)
    view.setBigUint64(0, bits ^ last)
    last = bits
    let lead = 0
    while (lead < bytesOfDouble && view.getUint8(lead) === 0) lead += 1
    let trail = 0
    while (lead < bytesOfDouble && view.getUint8(bytesOfDouble - 1 - trail) === 0) trail += 1
    writer.byte(lead * 16 + trail)
    for (let at = lead; at < bytesOfDouble - trail; at += 1) writer.byte(view.getUint8(at))
  }
}

export function bitsIn(reader: ByteReader): () => number {
  const view = new DataView(new ArrayBuffer(bytesOfDouble))
  let last = 0n
  return () => {
    const head = reader.byte()
    view.setBigUint64(0, 0n)
    const [lead, trail] = [head >> 4, head & 15]
    if (lead + trail > bytesOfDouble) throw new RangeError('A packed value has more bytes than a number.')
    for (let at = lead; at < bytesOfDouble - trail; at += 1) view.setUint8(at, reader.byte())
    last ^= view.getBigUint64(0)
    view.setBigUint64(0, last)
    return view.getFloat64(0)
  }
}
