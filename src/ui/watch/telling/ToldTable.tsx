import type { ToldMessage } from '@/core/views'
import { Moment } from '../../parts/Moment'
import { State } from '../../parts/State'
import { RowLink, Table } from '../../parts/Table'
import { deliveryOf, stateWords } from './toldWords'

interface ToldTableProps {
  readonly messages: readonly ToldMessage[]
  readonly selected: string | undefined
}

/** What was told, the latest first. */
export const ToldTable = ({ messages, selected }: ToldTableProps) => (
  <Table
    rows={messages}
    keyOf={({ id }) => id}
    isSelected={({ id }) => id === selected}
    columns={[
      { head: 'When', cell: ({ madeAt }) => <Moment at={madeAt} />, className: 'whitespace-nowrap' },
      { head: '', cell: ({ message }) => <span className="text-second">{stateWords[message.state]}</span> },
      { head: 'Message', cell: ({ id, message }) => <RowLink href={`?sel=${id}`}>{message.subject}</RowLink> },
      { head: 'By the rule', cell: ({ message }) => message.rule },
      { head: 'To', cell: ({ routeName }) => routeName ?? 'a route that is gone' },
      {
        head: 'Stands',
        cell: each => {
          const { gravity, words } = deliveryOf(each)
          return <State gravity={gravity}>{words}</State>
        },
        className: 'whitespace-nowrap',
      },
    ]}
  />
)
