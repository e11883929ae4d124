import { formatBytes } from '../units'
import type { FileRule } from './fileKinds'
import { pathsOf, plainPath, type Quota } from './quotas'

/** Something about limits that cannot be, or is hardly meant. */
export interface LimitTrouble {
  readonly of: 'quota' | 'file rule'
  readonly index: number
  readonly level: 'must' | 'warn'
  readonly why: string
}

const longestPath = 1000

/** What is wrong with quotas and file rules of a share. @param sizeBytes of the share */
export function limitTroubles(quotas: readonly Quota[], rules: readonly FileRule[], sizeBytes: bigint): LimitTrouble[] {
  return [
    ...quotas.flatMap((quota, index): LimitTrouble[] => {
      const told = quotaTrouble(quota, sizeBytes) ?? projectTrouble(quota, quotas.slice(0, index))
      return told === undefined ? [] : [{ of: 'quota', index, ...told }]
    }),
    ...rules.flatMap((rule, index): LimitTrouble[] => {
      const why =
        rule.pattern.trim() === ''
          ? 'It needs a name or a pattern; * is any.'
          : /[/\u0000]/.test(rule.pattern)
            ? 'A pattern is of names: it holds no slash.'
            : undefined
      if (why !== undefined) return [{ of: 'file rule', index, level: 'must', why }]
      const isAll = /^\*+$/.test(rule.pattern) && rule.content === 'any' && rule.verdict === 'deny'
      return isAll ? [{ of: 'file rule', index, level: 'warn', why: 'It refuses every file.' }] : []
    }),
  ]
}

type Told = Pick<LimitTrouble, 'level' | 'why'>
const must = (why: string): Told => ({ level: 'must', why })
const isPath = (path: string) =>
  path.startsWith('/') && path.length <= longestPath && !path.split('/').some(part => part === '..' || part === '.')

function quotaTrouble(quota: Quota, sizeBytes: bigint): Told | undefined {
  const { path, hardBytes, softBytes, of, id, project } = quota
  const paths = [path, ...(project?.alsoAt ?? [])]
  if (!paths.every(isPath))
    return must('A path begins at the root of the share, such as /people, and goes no way back.')
  if (paths.some(each => each.includes('*')))
    return must('A path names one directory; for each directory in it choose "each directory".')
  if (hardBytes === null && softBytes === null) return must('It needs a limit.')
  if (hardBytes !== null && softBytes !== null && softBytes > hardBytes)
    return must('Its soft limit is above its hard one.')
  if (id !== null && of !== 'user' && of !== 'group') return must('Only users and groups have an id.')
  if (hardBytes !== null && hardBytes > sizeBytes)
    return {
      level: 'warn',
      why: `${formatBytes(hardBytes)} is more than the share has: ${plainPath(path)} is full before.`,
    }
  return undefined
}

/** @param before quotas that stand before it */
function projectTrouble({ path, of, project }: Quota, before: readonly Quota[]): Told | undefined {
  if (of !== 'project') return project === undefined ? undefined : must('Only a project has further paths.')
  const name = project?.name.trim() ?? ''
  if (name === '') return must('A project has a name.')
  if (before.some(each => each.project?.name === project?.name)) return must(`There is a project ${name} already.`)
  const paths = pathsOf({ path, project })
  const inner = paths.find((each, index) => paths.some((above, other) => other !== index && isWithin(each, above)))
  return inner === undefined ? undefined : must(`${inner} lies in another of its paths: it would be counted twice.`)
}

const isWithin = (path: string, above: string) => above === '/' || path === above || path.startsWith(`${above}/`)
