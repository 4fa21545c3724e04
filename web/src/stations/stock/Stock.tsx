/** Stock: module kinds and the modules on the shelf with their readings. */
import { useState } from 'react'

import { useChoice } from '../../design/choice'
import { useAnalysis, useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Module, ModuleKind, Op } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { sentence } from '../../ui/format'
import { Button, Caution, Choose, Heading, Link, OneOf, Teach, Title } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { SentenceRows } from '../FindingRows'
import { Bench, Ledger, StationFrame } from '../Ledger'
import { KindSheet, NEW_KIND } from './KindSheet'

export function Stock() {
  const document = useDocument()
  const { findings } = useAnalysis()
  const units = useUnits('stock')
  const edit = useLive((s) => s.edit)
  const kinds = Object.entries(document.module_kinds)
  const [chosen, setChosen] = useState<string | null>(null)
  const kind = chosen && document.module_kinds[chosen] ? chosen : (kinds[0]?.[0] ?? null)
  const deadly = findings.find((f) => f.code === 'stock.deadly')
  async function add() {
    const id = freeId('module-kind', document.module_kinds)
    if (await edit([{ op: 'add', path: `/module_kinds/${id}`, value: NEW_KIND }])) setChosen(id)
  }
  return (
    <StationFrame>
      <Bench>
        <div className="mb-3">
          <OneOf
            label="Module kinds"
            value={kind}
            options={kinds.map(([id, k]) => [id, k.name] as const)}
            onChange={setChosen}
          >
            <Button plain onClick={() => void add()}>
              Another module kind
            </Button>
          </OneOf>
        </div>
        {kind ? (
          <KindSheet key={kind} id={kind} />
        ) : (
          <Teach action={<Button onClick={() => void add()}>Measure a module</Button>}>
            No modules yet. Measure one, weigh it, and say how many are like it.
          </Teach>
        )}
      </Bench>
      <Ledger label="Ledger">
        <Title right={`${Object.keys(document.modules).length} modules`}>On the shelf</Title>
        {deadly && (
          <Caution>
            Above 60 V d.c. can kill: isolate, gloves, one hand, no tools or metal laid on modules.{' '}
            {sentence(deadly, units)}.
          </Caution>
        )}
        <SentenceRows findings={findings.filter((f) => f.station === 'stock' && f !== deadly)} />
        {kind && <Shelf key={kind} kind={kind} />}
      </Ledger>
    </StationFrame>
  )
}

const VERDICTS = [
  ['good', 'good'],
  ['spare', 'spare'],
  ['reject', 'reject'],
] as const

function Shelf({ kind }: { kind: string }) {
  const document = useDocument()
  const selected = useChoice((s) => s.selected)
  const edit = useLive((s) => s.edit)
  const rows = Object.entries(document.modules)
    .filter(([, m]) => m.kind === kind)
    .sort(([, a], [, b]) => a.order - b.order)
  return (
    <>
      <Heading right={`${rows.length} of this kind`}>Modules</Heading>
      <MakeMany kind={kind} />
      {rows.map(([id, module]) => (
        <div
          key={id}
          className={`grid grid-cols-[1fr_auto_auto_auto] items-center gap-2 border-b border-hair ${selected === `modules/${id}` ? 'bg-wash' : ''}`}
        >
          <span className="narrow truncate">{module.name}</span>
          <Blank
            path={`/modules/${id}/reading_v`}
            label={`${module.name} reads`}
            hideLabel
            kind="voltage"
            optional
          />
          <Choose
            label={`${module.name} is`}
            hideLabel
            value={module.verdict}
            options={VERDICTS}
            onChange={(v) => void edit([{ op: 'replace', path: `/modules/${id}/verdict`, value: v }])}
          />
          <Link
            aria-label={`Remove ${module.name}`}
            onClick={() => void edit([{ op: 'remove', path: `/modules/${id}` }])}
          >
            ×
          </Link>
        </div>
      ))}
    </>
  )
}

/** "Make 11 of this kind." */
function MakeMany({ kind }: { kind: string }) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const [count, setCount] = useState('1')
  const number = /^\d{1,3}$/.test(count) ? Number(count) : 0
  async function make() {
    const { name } = document.module_kinds[kind] as ModuleKind
    const taken: Record<string, unknown> = { ...document.modules }
    const start = Object.values(document.modules).filter((m) => m.kind === kind).length
    const patch: Op[] = []
    for (let n = 1; n <= number; n += 1) {
      const id = freeId(`${kind}-${start + n}`.slice(0, 50), taken)
      const value: Partial<Module> = { name: `${name.split(' ')[0]} ${start + n}`, kind, order: start + n }
      taken[id] = value
      patch.push({ op: 'add', path: `/modules/${id}`, value })
    }
    if (await edit(patch)) setCount('1')
  }
  return (
    <form
      className="flex items-center gap-2 py-1"
      onSubmit={(e) => {
        e.preventDefault()
        void make()
      }}
    >
      <label htmlFor="make-many">Make</label>
      <input
        id="make-many"
        value={count}
        onChange={(e) => setCount(e.target.value)}
        inputMode="numeric"
        className="min-h-9 w-14 rounded border-[1.5px] border-edge bg-white px-1.5 text-right text-lg font-semibold"
      />
      <Button plain type="submit" disabled={number < 1}>
        of this kind
      </Button>
    </form>
  )
}
