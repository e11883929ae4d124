'use client'
import { useRouter } from 'next/navigation'
import { reportRows, type MonthReport } from '@/core/views'
import { Select } from '../../parts/Select'
import { csvText, save } from '../../table'
import { monthWords } from './monthWords'

interface ReportToolsProps {
  readonly report: MonthReport
  readonly months: readonly string[]
}

/** Which month, and what is taken away of it. */
export function ReportTools({ report, months }: ReportToolsProps) {
  const router = useRouter()
  return (
    <div className="mb-2 flex flex-wrap items-center gap-2 print:hidden">
      <Select
        aria-label="Month"
        className="w-[150px]"
        value={report.month}
        options={months.map(month => ({ value: month, words: monthWords(month) }))}
        onChange={month => router.push(`?month=${month}`, { scroll: false })}
      />
      <span className="grow" />
      <button
        type="button"
        className="button quiet h-7 px-[9px] font-normal"
        onClick={() => save(`capacity-${report.month}.csv`, csvText(reportRows(report)))}
      >
        CSV
      </button>
      <button type="button" className="button quiet h-7 px-[9px] font-normal" onClick={() => window.print()}>
        Print
      </button>
    </div>
  )
}
