/** The worst findings, worst first. Choosing one selects what it speaks of, in the station it belongs to. */
import { useRef, useState } from 'react'

import { useGoTo } from '../design/address'
import { useChoice } from '../design/choice'
import { useAnalysis, useLoaded } from '../design/live'
import type { WatchRow } from '../design/types'
import { Hint } from '../ui/Hint'
import { sentence } from '../ui/format'
import { Mark } from '../ui/Mark'
import { Link } from '../ui/parts'
import { InstrumentsSwitch } from './InstrumentsSwitch'
import { useUnits } from '../ui/units'
import { NextLink } from './NextLine'

const SHOWN = 3

export function useChooseRow() {
  const analysis = useAnalysis()
  const { project } = useLoaded()
  const choose = useChoice((s) => s.choose)
  const goTo = useGoTo(project)
  return (row: Pick<WatchRow, 'ids'>) => {
    const finding = analysis.findings.find((f) => f.id === row.ids[0])
    if (!finding) return
    goTo(finding.station, finding.subjects[0] ?? null)
    choose(finding.id, finding.subjects[0] ?? null)
  }
}

export function WatchStrip() {
  const { watch } = useAnalysis()
  const units = useUnits()
  const chooseRow = useChooseRow()
  const chosen = useChoice((s) => s.finding)
  const found = useChoice((s) => s.found)
  const [all, setAll] = useState(false)
  const strip = useRef<HTMLElement>(null)
  const rows = all ? watch : watch.slice(0, SHOWN)
  return (
    <section
      ref={strip}
      aria-label="Watch strip"
      className="relative z-10 flex min-h-12 shrink-0 print:hidden items-center gap-2 border-t border-edge bg-strip px-3 py-1.5"
    >
      <div
        className={`flex min-w-0 flex-1 gap-2 ${all ? 'max-h-60 flex-wrap overflow-auto' : 'overflow-hidden'}`}
      >
        {watch.length === 0 && (
          <span className="flex items-center gap-2 font-semibold">
            <Mark state="clear" silent /> Nothing is foul or tight
          </span>
        )}
        {rows.map((row) => (
          <Hint key={row.ids[0]} words={sentence(row, units)}>
            <button
              type="button"
              aria-pressed={row.ids.includes(chosen ?? '')}
              onClick={() => chooseRow(row)}
              className={`flex min-h-9 min-w-0 items-center gap-1.5 rounded border bg-white px-2 text-left ${all ? '' : 'shrink basis-1/3 max-[1100px]:basis-1/2 max-[1100px]:nth-3:hidden max-[900px]:basis-full max-[900px]:nth-2:hidden'} ${row.ids.includes(chosen ?? '') ? 'border-2 border-blue' : 'border-[#c9c2af]'}`}
            >
              <Mark state={row.state} />
              <span className="narrow line-clamp-2 text-[14px] text-balance leading-4 font-medium">
                {sentence(row, units)}
              </span>
            </button>
          </Hint>
        ))}
      </div>
      <span aria-live="polite" className="narrow max-w-64 shrink truncate text-sm">
        {found}
      </span>
      {watch.length > SHOWN && (
        <Link onClick={() => setAll(!all)}>{all ? 'fewer' : `all ${watch.length}`}</Link>
      )}
      <NextLink />
      <InstrumentsSwitch />
      <Link onClick={() => window.print()}>print</Link>
    </section>
  )
}
