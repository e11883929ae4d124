import { Link } from '../../parts/Link'
import type { Grower } from '@/core/views'
import { growthWords } from './growthWords'

interface GrowersProps {
  readonly growers: readonly Grower[]
  /** Of the whole pool, over the same days. */
  readonly wholeBytesPerDay: number | undefined
}

/** Who grows in a pool: the fastest volumes, and what they make of the pool's growth. */
export function Growers({ growers, wholeBytesPerDay }: GrowersProps) {
  const growing = growers.filter(({ bytesPerDay }) => bytesPerDay >= 2 ** 20)
  const most = growing[0]?.bytesPerDay ?? 1
  return (
    <section>
      <h3>
        Who grows there <span>a day, last 28</span>
      </h3>
      {growing.length === 0 && <p className="mt-0 text-second">No volume of it has grown.</p>}
      <ul className="m-0 list-none p-0">
        {growing.map(({ id, name, bytesPerDay }) => (
          <li key={id} className="pb-[7px]">
            <div className="flex justify-between gap-3">
              <Link href={`/provision?sel=${id}`} className="min-w-0 truncate no-underline hover:underline">
                {name}
              </Link>
              <span className="mono shrink-0">{growthWords(bytesPerDay)}</span>
            </div>
            <div
              aria-hidden
              className="mt-[2px] h-[5px]"
              style={{ width: `${(bytesPerDay / most) * 100}%`, background: 'var(--d1)' }}
            />
          </li>
        ))}
      </ul>
      {wholeBytesPerDay !== undefined && (
        <div className="flex justify-between border-t border-rule pt-[5px] font-semibold">
          <span>The pool, by its trend</span>
          <span className="mono">{growthWords(wholeBytesPerDay)}</span>
        </div>
      )}
    </section>
  )
}
