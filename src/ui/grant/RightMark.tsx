import type { Right } from '@/core/access'

const words: Readonly<Record<Right, string>> = {
  none: 'refused',
  read: 'may read',
  'write only': 'may write, not read',
  change: 'may change',
}

/** What somebody may, as a note on its line: a head for reading, a stem for changing, a cross for being refused. */
export function RightMark({ right }: { readonly right: Right }) {
  return (
    <svg viewBox="0 0 26 24" className="inline-block h-[28px] w-[31px]" role="img" aria-label={words[right]}>
      <line x1={0} x2={26} y1={15} y2={15} stroke="var(--rule)" strokeWidth={1} />
      {right === 'none' ? (
        <g stroke="var(--now)" strokeWidth={1.6}>
          <line x1={9} x2={17} y1={11} y2={19} />
          <line x1={17} x2={9} y1={11} y2={19} />
        </g>
      ) : (
        <>
          <ellipse
            cx={12}
            cy={15}
            rx={right === 'read' ? 4 : 5.2}
            ry={right === 'read' ? 3 : 3.8}
            transform="rotate(-14 12 15)"
            fill={right === 'write only' ? 'var(--paper)' : 'var(--ink)'}
            stroke="var(--ink)"
          />
          {right !== 'read' && <line x1={17} x2={17} y1={13.5} y2={2} stroke="var(--ink)" strokeWidth={1.6} />}
        </>
      )}
    </svg>
  )
}

export const rightWords = (right: Right) => words[right]
