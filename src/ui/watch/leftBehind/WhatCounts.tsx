import { Link } from '../../parts/Link'
import { leftDays, leftWhys, type LeftBehind } from '@/core/views'
import { Margin } from '../../frame'
import { bytesOf, listWords } from './leftWords'

/** From how many days on something counts, what each list is made of, and what would come back by each. */
export const WhatCounts = ({ left }: { readonly left: LeftBehind }) => (
  <Margin>
    <h2 className="pr-12">What counts</h2>
    <p className="mt-1 text-second">
      Nothing here is certain: a volume may wait for its year’s end. Look before you remove; what is removed stays in
      holding for some days.
    </p>
    <h3>From how many days on</h3>
    <div className="flex gap-3">
      {leftDays.map(days => (
        <Link
          key={days}
          href={`/watch/left-behind?days=${days}`}
          aria-current={days === left.days ? 'true' : undefined}
          className={`no-underline ${days === left.days ? 'border-b border-ink text-ink' : 'text-second hover:text-ink'}`}
        >
          {days} days
        </Link>
      ))}
    </div>
    <dl className="m-0 mt-3">
      {leftWhys.map(why => {
        const list = left.lists.find(each => each.why === why)
        return (
          <div key={why} className="border-t border-rule py-2">
            <dt className="flex justify-between gap-3">
              <a className="textlink" href={`#${why.replaceAll(' ', '-')}`}>
                {listWords[why].title}
              </a>
              <span className="mono whitespace-nowrap">{bytesOf(list?.bytes ?? 0)}</span>
            </dt>
            <dd className="m-0 text-sm text-second">{listWords[why].counts}</dd>
          </div>
        )
      })}
    </dl>
  </Margin>
)
