import { readFileSync } from 'node:fs'

/** Source: proc(5), VmRSS in kB. */
export function residentMegabytes(pid: number | undefined): number {
  const [, kilobytes = 'NaN'] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? []
  return Math.round(Number(kilobytes) / 1000)
}

/** Source: proc(5), utime and stime, in hundredths of a second. */
export function cpuSeconds(pid: number | undefined): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
    .replace(/^.*\) /, '')
    .split(' ')
  return (Number(fields[11]) + Number(fields[12])) / 100
}
