import { ArrowUp, X } from 'lucide-react'

interface LineActsProps {
  /** What the line is called: `rule 2`. */
  readonly line: string
  readonly remove: () => void
  /** Undefined for the first. */
  readonly raise: (() => void) | undefined
}

/** What can be done with one line of a list whose order counts. */
export const LineActs = ({ line, remove, raise }: LineActsProps) => (
  <>
    {raise !== undefined && (
      <button
        type="button"
        className="border-0 bg-transparent p-0 text-second"
        aria-label={`Put ${line} before the one above`}
        onClick={raise}
      >
        <ArrowUp aria-hidden size={14} />
      </button>
    )}
    <button
      type="button"
      className="border-0 bg-transparent p-0 text-second"
      aria-label={`Take ${line} away`}
      onClick={remove}
    >
      <X aria-hidden size={14} />
    </button>
  </>
)

/** A list in which one line stands before the one that was above it. */
export function raised<Line>(lines: readonly Line[], index: number): readonly Line[] {
  const moved = lines[index]
  return moved === undefined || index === 0 ? lines : lines.toSpliced(index, 1).toSpliced(index - 1, 0, moved)
}
