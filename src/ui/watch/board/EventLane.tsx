import { Link } from '../../parts/Link'
import type { BoardEvent, BoardPage } from '@/core/views'
import { hourWords } from '../../parts/hourWords'
import { Mark } from '../../parts/State'

const most = 8

/** What happened to the objects above: changes from their beginning to their end, findings for as long as they stood. */
export function EventLane({ page, labelPixels }: { readonly page: BoardPage; readonly labelPixels: number }) {
  const span = page.until - page.from
  const share = (at: number) => Math.min(1, Math.max(0, (at - page.from) / span)) * 100
  const shown = page.events.slice(-most)
  return (
    <div className="grid border-b border-rule-fine" style={{ gridTemplateColumns: `${labelPixels}px 1fr` }}>
      <div className="py-2 pr-2 pl-2">
        <div className="font-semibold">Events and changes</div>
        <div className="text-xs text-second">
          of all objects above{page.events.length > most ? `; the latest ${most} of ${page.events.length}` : ''}
        </div>
      </div>
      <div className="relative py-1" style={{ minHeight: 24 + shown.length * 20 }}>
        {shown.map((event, index) => (
          <div
            // Several may be of the same object and moment.
            key={`${index} ${event.href} ${event.at}`}
            className="absolute right-0 left-0 h-[20px]"
            style={{ top: 4 + index * 20 }}
          >
            {event.until !== null && event.until > event.at && (
              <span
                className="absolute bottom-[2px] h-[2px]"
                style={{
                  left: `${share(event.at)}%`,
                  width: `${Math.max(0.3, share(event.until) - share(event.at))}%`,
                  background: 'var(--second)',
                }}
              />
            )}
            <Words event={event} left={share(event.at)} />
          </div>
        ))}
        {shown.length === 0 && <p className="m-0 py-1 text-second">Nothing happened to them in this span.</p>}
      </div>
    </div>
  )
}

const Words = ({ event, left }: { readonly event: BoardEvent; readonly left: number }) => (
  <Link
    className="absolute flex max-w-[60%] items-baseline gap-[5px] truncate text-xs no-underline"
    // What begins late has its words before it, so that they stay on the sheet.
    style={left > 60 ? { right: `${100 - left}%` } : { left: `${left}%` }}
    href={event.href}
    title={`${hourWords(event.at)}: ${event.words}`}
  >
    <Mark gravity={event.gravity} />
    <span className="truncate">{event.words}</span>
  </Link>
)
