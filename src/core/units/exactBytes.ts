import { binaryUnits, decimalUnits } from './byteUnits'

/** Bytes in the largest unit in which they are a whole number: what `parseBytes` reads back as the same. */
export function exactBytes(bytes: bigint): string {
  const whole = [...binaryUnits, ...decimalUnits].filter(([, unit]) => bytes % unit === 0n)
  const [name, unit] = whole.reduce((best, each) => (each[1] > best[1] ? each : best), whole[0] ?? binaryUnits[0])
  return bytes === 0n ? '0 B' : `${bytes / unit} ${name}`
}
