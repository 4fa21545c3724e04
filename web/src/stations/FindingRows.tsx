/** Findings as rows: what, has, needs, mark; each opens its working. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useChoice } from '../design/choice'
import { useLive, useLoaded } from '../design/live'
import { workingQuery } from '../design/queries'
import type { Finding, LengthUnit } from '../design/types'
import { figure, gap, gapAndNeed, sentence, withCommas } from '../ui/format'
import { Mark, WORD } from '../ui/Mark'
import { PlusMinus } from '../ui/PlusMinus'
import { Link } from '../ui/parts'
import { useUnits } from '../ui/units'
import { AgreeGap } from './AgreeGap'
import { Loupe } from './Loupe'

/** What a gap has and what it needs. */
function told({ value, limit }: Finding, unit: LengthUnit): [string, string] {
  if (value === null) return ['–', limit === null ? '' : gap(limit, unit, 'up')]
  if (limit === null) return [gap(value, unit), '']
  const [has, needs] = gapAndNeed(value, limit, unit)
  return [has, needs.replace(/\.0$/, '')]
}

/** Gaps in three columns. */
export function GapRows({ findings, most = 3 }: { findings: Finding[]; most?: number }) {
  const [all, setAll] = useState(false)
  const units = useUnits()
  const chosen = useChoice((s) => s.finding)
  const choose = useChoice((s) => s.choose)
  const shown = all ? findings : findings.slice(0, most)
  if (findings.length === 0) return <p className="my-1 text-sm">Nothing is near it.</p>
  return (
    <>
      <table className="w-full border-collapse">
        <thead>
          <tr className="text-sm text-soft">
            <th className="text-left font-semibold">to</th>
            <th className="text-right font-semibold whitespace-nowrap">has, {units.length}</th>
            <th className="pl-2 text-right font-semibold whitespace-nowrap">needs, {units.length}</th>
            <th>
              <span className="sr-only">state</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map((f) => {
            const [has, needs] = told(f, units.length)
            return (
              <tr key={f.id} className={f.id === chosen ? 'bg-wash' : ''}>
                <td className="py-0.5">
                  <button
                    type="button"
                    aria-pressed={f.id === chosen}
                    onClick={() => choose(f.id, f.subjects[0] ?? null)}
                    className="min-h-8 text-left text-[15px] leading-tight hover:text-blue"
                  >
                    {f.label}
                  </button>
                </td>
                <td className="text-right text-figure font-bold">{has}</td>
                <td className="pl-3 text-right text-[15px]">{needs}</td>
                <td className="w-7 text-right">
                  <Mark state={f.state} />
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
      {findings.length > most && (
        <Link onClick={() => setAll(!all)}>{all ? 'the worst three' : `all ${findings.length}`}</Link>
      )}
      {shown.some((f) => f.id === chosen) && (
        <Chosen finding={shown.find((f) => f.id === chosen) as Finding} />
      )}
    </>
  )
}

/** Uses: what, by what, how much of what it bears. */
export const UseRows = ({ findings }: { findings: Finding[] }) => <Rows findings={findings} uses />

/** Findings as sentences. */
export const SentenceRows = ({ findings }: { findings: Finding[] }) => <Rows findings={findings} />

function Rows({ findings, uses = false }: { findings: Finding[]; uses?: boolean }) {
  const units = useUnits()
  const chosen = useChoice((s) => s.finding)
  const choose = useChoice((s) => s.choose)
  return (
    <ul className="m-0 list-none p-0">
      {findings.map((f) => (
        <li key={f.id} className="border-b border-hair last:border-0">
          <button
            type="button"
            aria-pressed={f.id === chosen}
            onClick={() => choose(f.id, f.subjects[0] ?? null)}
            className={`flex min-h-9 w-full items-start gap-2 py-1.5 text-left hover:text-blue ${f.id === chosen ? 'bg-wash' : ''}`}
          >
            <span className="pt-0.5">
              <Mark state={f.state} />
            </span>
            <span className="flex-1 leading-snug">{uses ? f.label : sentence(f, units)}</span>
            {uses && f.figures[0] && (
              <strong className="text-figure leading-none">{figure(f.figures[0], units)}</strong>
            )}
          </button>
          {f.id === chosen && <Chosen finding={f} />}
        </li>
      ))}
    </ul>
  )
}

/** The chosen finding: why, how sure, and its working. */
function Chosen({ finding }: { finding: Finding }) {
  const open = useChoice((s) => s.working)
  const setOpen = useChoice((s) => s.showWorking)
  const units = useUnits()
  return (
    <div className="my-2 rounded border border-blue bg-wash px-3 py-2 text-sm">
      <p className="m-0 font-semibold">
        {WORD[finding.state]}: {sentence(finding, units)}
      </p>
      {finding.code.startsWith('gap') && finding.points_mm.length === 2 && <Loupe finding={finding} />}
      {finding.rationale && <p className="m-0 mt-1">Because: {finding.rationale.replace(/\.$/, '')}.</p>}
      {finding.tolerance !== null && finding.unit === 'mm' && (
        <p className="m-0">± {figure({ value: finding.tolerance, unit: 'mm', round: 'up' }, units)}</p>
      )}
      {finding.tolerance !== null && <PlusMinus />}{' '}
      {finding.code === 'gap' && <AgreeGap key={finding.id} finding={finding} />}{' '}
      {finding.has_working && (
        <Link onClick={() => setOpen(!open)}>{open ? 'hide the working' : 'show the working'}</Link>
      )}
      {open && <WorkingRows finding={finding.id} />}
    </div>
  )
}

function WorkingRows({ finding }: { finding: string }) {
  const { project, revision } = useLoaded()
  const patch = useLive((s) => s.previewPatch)
  const { data, error } = useQuery(workingQuery(project, revision, finding, patch))
  if (error) return <p role="alert">{error.message}</p>
  if (!data) return <p>One moment …</p>
  return (
    <ol className="m-0 mt-1 list-none p-0">
      {data.steps.map((step, i) => (
        <li key={i} className="border-t border-hair py-1">
          <span className="flex justify-between gap-2">
            <span>{step.what}</span>
            <strong className="whitespace-nowrap">
              {withCommas(String(Number(step.value.toFixed(Math.abs(step.value) < 10 ? 3 : 1))))} {step.unit}
            </strong>
          </span>
          <span className="narrow block text-xs text-soft">
            {step.rule}
            {step.source && step.source !== step.rule && ` · ${step.source}`}
          </span>
        </li>
      ))}
    </ol>
  )
}
