import { ArrowDown, ArrowUp } from 'lucide-react'

/** Which way a column is sorted, beside its name. */
export function SortMark({ sorted }: { readonly sorted: 'none' | 'ascending' | 'descending' }) {
  if (sorted === 'none') return null
  const Icon = sorted === 'descending' ? ArrowDown : ArrowUp
  return <Icon aria-hidden size={11} className="ml-[2px] inline-block align-[-1px]" />
}
