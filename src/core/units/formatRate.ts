const units = [
  ['Tb/s', 1e12],
  ['Gb/s', 1e9],
  ['Mb/s', 1e6],
  ['kb/s', 1e3],
] as const

/** A line's speed in the largest unit that is at least 1, with two decimals at most: `25 Gb/s`. */
export function formatBitsPerSecond(bits: number): string {
  const [name, size] = units.find(([, each]) => bits >= each) ?? ['b/s', 1]
  return `${Number((bits / size).toFixed(2))} ${name}`
}
