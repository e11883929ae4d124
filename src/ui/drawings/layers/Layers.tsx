import Link from 'next/link'

/** One layer: how thick it is, and where it leads. */
export interface Layer {
  readonly key: string
  readonly words: string
  /** What it holds, in words: `41 GiB`. */
  readonly amount: string
  readonly share: number
  readonly href: string
  readonly isHatched?: boolean
  readonly isOn?: boolean
}

interface LayersProps {
  readonly label: string
  /** From the top down, as they lie. */
  readonly layers: readonly Layer[]
}

const height = 236
/** A thin layer stands all the same, so that it can be seen and chosen. */
const thinnest = 3
const lineHeight = 19

/** What something consists of, as layers that lie on each other like those of a drill core; each opens to what it is made of. */
export function Layers({ label, layers }: LayersProps) {
  // Several stand on one page.
  const hatch = `hatch-${label.replace(/\W/g, '')}`
  const shown = layers.filter(each => each.share > 0)
  const thin = shown.map(each => Math.max(thinnest, each.share * height))
  const scale =
    height /
    Math.max(
      height,
      thin.reduce((sum, each) => sum + each, 0),
    )
  const thick = thin.map(each => each * scale)
  const tops = thick.map((_, index) => thick.slice(0, index).reduce((sum, each) => sum + each, 0))
  const lines = spread(tops.map((top, index) => top + (thick[index] ?? 0) / 2))
  return (
    <div className="min-w-0">
      <div className="label mb-1">{label}</div>
      <div className="relative" style={{ height: Math.max(height, shown.length * lineHeight) + 4 }}>
        <svg
          className="absolute top-0 left-0"
          width={84}
          height={Math.max(height, shown.length * lineHeight) + 4}
          aria-hidden
        >
          <defs>
            <pattern id={hatch} width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <rect width={5} height={5} fill="var(--paper)" />
              <rect width={1} height={5} fill="var(--faint)" />
            </pattern>
          </defs>
          {shown.map((layer, index) => {
            const [top, own, line] = [tops[index] ?? 0, thick[index] ?? 0, lines[index] ?? 0]
            const shade = 18 + Math.round((70 * index) / Math.max(1, shown.length - 1))
            return (
              <g key={layer.key}>
                <rect
                  x={0.5}
                  y={top + 0.5}
                  width={52}
                  height={Math.max(1, own - 1)}
                  fill={
                    layer.isHatched === true
                      ? `url(#${hatch})`
                      : `color-mix(in srgb, var(--ink) ${shade}%, var(--paper))`
                  }
                  stroke={layer.isOn === true ? 'var(--action)' : 'var(--rule)'}
                  strokeWidth={layer.isOn === true ? 2 : 0.5}
                />
                <path d={`M53 ${top + own / 2} L68 ${line} L82 ${line}`} fill="none" stroke="var(--rule)" />
              </g>
            )
          })}
        </svg>
        {shown.map((layer, index) => (
          <Link
            key={layer.key}
            href={layer.href}
            scroll={false}
            aria-current={layer.isOn === true ? 'true' : undefined}
            className={`absolute right-0 left-[86px] flex justify-between gap-2 no-underline ${layer.isOn === true ? 'font-semibold text-action' : ''}`}
            style={{ top: (lines[index] ?? 0) - lineHeight / 2 }}
          >
            <span className="truncate">{layer.words}</span>
            <span className="mono whitespace-nowrap text-second">{layer.amount}</span>
          </Link>
        ))}
      </div>
    </div>
  )
}

/** Places for lines of words beside the middles of layers, none upon another. */
function spread(middles: readonly number[]): number[] {
  const lines: number[] = []
  for (const middle of middles) lines.push(Math.max(middle, (lines.at(-1) ?? -lineHeight / 2) + lineHeight))
  const most = Math.max(height, middles.length * lineHeight) - lineHeight / 2 + 2
  for (let index = lines.length - 1, limit = most; index >= 0; index -= 1, limit -= lineHeight)
    lines[index] = Math.min(lines[index] ?? 0, limit)
  return lines
}
