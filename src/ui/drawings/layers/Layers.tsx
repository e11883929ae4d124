import { Link } from '../../parts/Link'

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
  const shown = layers.filter(each => each.share > 0)
  const placed = lying(shown)
  const pixels = Math.max(height, shown.length * lineHeight) + 4
  return (
    <div className="min-w-0">
      <div className="label mb-1">{label}</div>
      <div className="relative" style={{ height: pixels }}>
        <Core label={label} placed={placed} pixels={pixels} />
        {placed.map(({ layer, line }) => (
          <Link
            key={layer.key}
            href={layer.href}
            scroll={false}
            aria-current={layer.isOn === true ? 'true' : undefined}
            className={`absolute right-0 left-[86px] flex justify-between gap-2 no-underline ${layer.isOn === true ? 'font-semibold text-action' : ''}`}
            style={{ top: line - lineHeight / 2 }}
          >
            <span className="truncate">{layer.words}</span>
            <span className="mono whitespace-nowrap text-second">{layer.amount}</span>
          </Link>
        ))}
      </div>
    </div>
  )
}

interface Placed {
  readonly layer: Layer
  readonly top: number
  readonly thick: number
  /** Where its line of words stands. */
  readonly line: number
}

/** Where each layer lies. */
function lying(shown: readonly Layer[]): Placed[] {
  const thin = shown.map(each => Math.max(thinnest, each.share * height))
  const whole = thin.reduce((sum, each) => sum + each, 0)
  const thick = thin.map(each => (each * height) / Math.max(height, whole))
  const tops = thick.map((_, index) => thick.slice(0, index).reduce((sum, each) => sum + each, 0))
  const lines = spread(tops.map((top, index) => top + (thick[index] ?? 0) / 2))
  return shown.map((layer, index) => ({
    layer,
    top: tops[index] ?? 0,
    thick: thick[index] ?? 0,
    line: lines[index] ?? 0,
  }))
}

interface CoreProps {
  readonly label: string
  readonly placed: readonly Placed[]
  readonly pixels: number
}

/** The layers themselves, each with a line that leads to its words. */
function Core({ label, placed, pixels }: CoreProps) {
  // Several stand on one page.
  const hatch = `hatch-${label.replace(/\W/g, '')}`
  return (
    <svg className="absolute top-0 left-0" width={84} height={pixels} aria-hidden>
      <defs>
        <pattern id={hatch} width={5} height={5} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={5} height={5} fill="var(--paper)" />
          <rect width={1} height={5} fill="var(--faint)" />
        </pattern>
      </defs>
      {placed.map(({ layer, top, thick, line }, index) => {
        const shade = 18 + Math.round((70 * index) / Math.max(1, placed.length - 1))
        const isOn = layer.isOn === true
        return (
          <g key={layer.key}>
            <rect
              x={0.5}
              y={top + 0.5}
              width={52}
              height={Math.max(1, thick - 1)}
              fill={
                layer.isHatched === true ? `url(#${hatch})` : `color-mix(in srgb, var(--ink) ${shade}%, var(--paper))`
              }
              stroke={isOn ? 'var(--action)' : 'var(--rule)'}
              strokeWidth={isOn ? 2 : 0.5}
            />
            <path d={`M53 ${top + thick / 2} L68 ${line} L82 ${line}`} fill="none" stroke="var(--rule)" />
          </g>
        )
      })}
    </svg>
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
