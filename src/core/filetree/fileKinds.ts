/** What a file is by its first bytes, whatever its name says. */
export const fileKinds = ['audio', 'video', 'picture', 'archive', 'program', 'document'] as const
export type FileKind = (typeof fileKinds)[number]

/** A kind of file that is refused, or only told of. Both must fit: the name, and what the first bytes say. */
export interface FileRule {
  /** `*.mp3`: `*` is any run of characters, `?` any one; letters are alike, large or small. */
  readonly pattern: string
  readonly content: FileKind | 'any'
  readonly verdict: 'deny' | 'report'
}

export interface FileKindAnswer {
  readonly allowed: boolean
  /** Zero-based position of the rule that denies; null where none does. */
  readonly ruleIndex: number | null
  /** Positions of the rules by which it is told. */
  readonly reported: readonly number[]
}

interface Signature {
  readonly kind: FileKind
  readonly at: number
  readonly bytes: string
  /** What else must stand there: of containers that hold several kinds. */
  readonly also?: { readonly at: number; readonly bytes: string }
}

/** First bytes in hexadecimal. Sources: RFC 9639 (FLAC), RFC 3533 (Ogg), ISO 14496-12 (ftyp), RFC 8794 (EBML), RFC 1952 (gzip), ISO 32000 (PDF), PNG, JPEG, TIFF and ELF specifications. */
const signatures: readonly Signature[] = [
  { kind: 'audio', at: 0, bytes: '494433' },
  { kind: 'audio', at: 0, bytes: 'fffb' },
  { kind: 'audio', at: 0, bytes: '664c6143' },
  { kind: 'audio', at: 0, bytes: '4f676753' },
  { kind: 'audio', at: 0, bytes: '52494646', also: { at: 8, bytes: '57415645' } },
  { kind: 'video', at: 0, bytes: '52494646', also: { at: 8, bytes: '41564920' } },
  { kind: 'video', at: 0, bytes: '1a45dfa3' },
  { kind: 'video', at: 4, bytes: '66747970' },
  { kind: 'picture', at: 0, bytes: '89504e470d0a1a0a' },
  { kind: 'picture', at: 0, bytes: 'ffd8ff' },
  { kind: 'picture', at: 0, bytes: '49492a00' },
  { kind: 'picture', at: 0, bytes: '4d4d002a' },
  { kind: 'archive', at: 0, bytes: '504b0304' },
  { kind: 'archive', at: 0, bytes: '1f8b' },
  { kind: 'archive', at: 0, bytes: '377abcaf271c' },
  { kind: 'program', at: 0, bytes: '7f454c46' },
  { kind: 'program', at: 0, bytes: '4d5a' },
  { kind: 'program', at: 0, bytes: '2321' },
  { kind: 'document', at: 0, bytes: '25504446' },
]

/** What the first bytes of a file say that it is; undefined where they say nothing. @param head in hexadecimal, 16 bytes are enough */
export function contentOf(head: string): FileKind | undefined {
  const plain = head.toLowerCase()
  const stands = (at: number, bytes: string) => plain.startsWith(bytes, at * 2)
  return signatures.find(
    ({ at, bytes, also }) => stands(at, bytes) && (also === undefined || stands(also.at, also.bytes)),
  )?.kind
}

/** First bytes that say a kind, for a trial. */
export function headOf(kind: FileKind): string {
  const { at, bytes, also } = signatures.find(each => each.kind === kind) ?? { at: 0, bytes: '' }
  const first = `${'00'.repeat(at)}${bytes}`
  return also === undefined ? first : `${first.padEnd(also.at * 2, '0')}${also.bytes}`
}

/**
 * Whether a name fits a pattern. It looks back to the last `*` only, so its time is at most the product of both lengths, whatever
 * somebody writes: there is nothing in a pattern that could make it wander.
 */
export function fitsPattern(pattern: string, name: string): boolean {
  const [wanted, given] = [[...pattern.toLowerCase()], [...name.toLowerCase()]]
  let [at, from, star, mark] = [0, 0, -1, 0]
  while (at < given.length) {
    if (wanted[from] === '*') {
      star = from
      mark = at
      from += 1
    } else if (from < wanted.length && (wanted[from] === '?' || wanted[from] === given[at])) {
      from += 1
      at += 1
    } else if (star >= 0) {
      from = star + 1
      mark += 1
      at = mark
    } else return false
  }
  while (wanted[from] === '*') from += 1
  return from === wanted.length
}

/** A name that fits a pattern, for a trial. */
export const nameThatFits = (pattern: string) => pattern.replaceAll('*', 'wendrel-trial').replaceAll('?', 'x')

/** Judges a file by its name and its first bytes against every rule. */
export function judgeKind(rules: readonly FileRule[], name: string, head: string): FileKindAnswer {
  const content = contentOf(head)
  const fitting = rules.flatMap((rule, index) =>
    fitsPattern(rule.pattern, name) && (rule.content === 'any' || rule.content === content) ? [{ rule, index }] : [],
  )
  const denying = fitting.find(({ rule }) => rule.verdict === 'deny')
  return {
    allowed: denying === undefined,
    ruleIndex: denying?.index ?? null,
    reported: fitting.filter(({ rule }) => rule.verdict === 'report').map(({ index }) => index),
  }
}
