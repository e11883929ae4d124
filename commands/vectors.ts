import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { answerCase, firstDifference, isKnownSubject } from '@/core/vectors'
import { CommandRefused } from './CommandRefused'

interface WorkedCases {
  readonly subject: string
  readonly tolerance: number
  readonly cases: readonly {
    readonly name: string
    readonly input: unknown
    readonly expected: unknown
    readonly tolerance?: number
  }[]
}

/**
 * Puts every case of every file in a folder, or of those of some subjects, to core. A subject that core does not compute yet is told
 * apart from a failure; asked for by name it is one.
 * @returns how many failed
 */
export function runVectors(folder: string, print: (line: string) => void, subjects: readonly string[] = []): number {
  let passed = 0
  let failed = 0
  const unknown: string[] = []
  const met = new Set<string>()
  for (const name of namesIn(folder)) {
    const file = readCases(join(folder, name))
    if (subjects.length > 0 && !subjects.includes(file.subject)) continue
    met.add(file.subject)
    if (!isKnownSubject(file.subject)) {
      unknown.push(`${file.subject} (${file.cases.length} cases)`)
      if (subjects.length > 0) failed += file.cases.length
      continue
    }
    for (const { name: caseName, input, expected, tolerance } of file.cases) {
      const difference = answered(file.subject, input, expected, tolerance ?? file.tolerance)
      if (difference === undefined) passed += 1
      else {
        failed += 1
        print(`${name}: ${caseName}: ${difference}`)
      }
    }
  }
  for (const subject of subjects.filter(each => !met.has(each))) {
    print(`no file of ${folder} is of the subject ${subject}`)
    failed += 1
  }
  if (unknown.length > 0) print(`not computed yet: ${unknown.join(', ')}`)
  print(`${passed} passed, ${failed} failed`)
  return failed
}

function namesIn(folder: string): string[] {
  try {
    return readdirSync(folder)
      .filter(name => name.endsWith('.json'))
      .sort()
  } catch {
    throw new CommandRefused(
      `The folder ${folder} cannot be read.`,
      'Give a folder of worked cases: ./wendrel vectors vectors',
    )
  }
}

function answered(subject: string, input: unknown, expected: unknown, tolerance: number): string | undefined {
  try {
    return firstDifference(answerCase(subject, input), expected, tolerance)
  } catch (cause) {
    return `expected ${JSON.stringify(expected).slice(0, 120)}, got an error: ${cause instanceof Error ? cause.message : String(cause)}`
  }
}

function readCases(path: string): WorkedCases {
  try {
    const file = JSON.parse(readFileSync(path, 'utf8')) as WorkedCases
    if (typeof file.subject === 'string' && Array.isArray(file.cases)) return file
  } catch {
    // told below, as any file that is not of this kind
  }
  throw new CommandRefused(`${path} is no file of worked cases.`, 'It needs "subject", "tolerance" and "cases".')
}
