/** Stock: module kinds, the modules on the shelf, what is kept of the donor, and the tables of the shop. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useAnalysis, useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import { starterKindsQuery } from '../../design/queries'
import { begin } from '../../design/taken'
import type { Op } from '../../design/types'
import { AddFrom } from '../../ui/AddFrom'
import { sentence } from '../../ui/format'
import { OneOf } from '../../ui/Toggles'
import { Button, Caution, Teach, Title } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { SentenceRows } from '../FindingRows'
import { Bench, Ledger, StationFrame } from '../Ledger'
import { selectedIn, useParts } from '../useParts'
import { Kept } from './Kept'
import { KindSheet, NEW_KIND } from './KindSheet'
import { Shelf, ShelfRule } from './Shelf'
import { Tables } from './Tables'

const PARTS = [
  ['kinds', 'Kinds'],
  ['shelf', 'Shelf'],
  ['kept', 'Stacks and hardware'],
  ['tables', 'Tables'],
] as const
type PartName = (typeof PARTS)[number][0]

const OF_PATH: Record<string, PartName> = {
  modules: 'shelf',
  stacks: 'kept',
  hardware: 'kept',
  module_kinds: 'kinds',
}

export function Stock() {
  const document = useDocument()
  const { findings } = useAnalysis()
  const units = useUnits('stock')
  const { part, open, key } = useParts<PartName>(PARTS, OF_PATH, 'kinds')
  const deadly = findings.find((f) => f.code === 'stock.deadly')
  return (
    <StationFrame>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <div className="shrink-0 border-b border-hair px-3 py-1">
          <OneOf
            bare
            label="Parts of the stock"
            value={part}
            options={PARTS}
            onChange={(next) => open(next as PartName)}
          />
        </div>
        <Bench key={key}>{SCREENS[part]}</Bench>
      </div>
      <Ledger label="Ledger">
        <Title right={`${Object.keys(document.modules).length} modules`}>On the shelf</Title>
        {deadly && (
          <Caution>
            Above 60 V d.c. can kill: isolate, gloves, one hand, no tools or metal laid on modules.{' '}
            {sentence(deadly, units)}.
          </Caution>
        )}
        <SentenceRows findings={findings.filter((f) => f.station === 'stock' && f !== deadly)} />
        <ShelfRule />
      </Ledger>
    </StationFrame>
  )
}

const SCREENS: Record<PartName, React.ReactNode> = {
  kinds: <Kinds />,
  shelf: <Shelf />,
  kept: <Kept />,
  tables: <Tables />,
}

function Kinds() {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const { data } = useQuery(starterKindsQuery)
  const kinds = Object.entries(document.module_kinds)
  const [chosen, setChosen] = useState<string | null>(selectedIn('module_kinds'))
  const kind = chosen && document.module_kinds[chosen] ? chosen : (kinds[0]?.[0] ?? null)
  async function add(patch: (path: string) => Op[], name: string) {
    const id = freeId(name, document.module_kinds)
    if (await edit(patch(`/module_kinds/${id}`))) setChosen(id)
  }
  const measure = () => void add((path) => begin(document, 'add', path, NEW_KIND), 'module-kind')
  const generic = (
    <AddFrom
      label="Start from a generic kind, made up"
      options={Object.entries(data ?? {}).map(([key, k]) => [key, String(k.name)] as const)}
      onAdd={(key) => data?.[key] && void add((path) => [{ op: 'add', path, value: data[key] }], key)}
    />
  )
  if (!kind)
    return (
      <Teach
        action={
          <>
            <Button data-goes="/module_kinds" onClick={measure}>
              Measure a module
            </Button>
            {generic}
          </>
        }
      >
        No modules yet. Measure one, weigh it, and say how many are like it.
      </Teach>
    )
  return (
    <>
      <OneOf
        label="Module kinds"
        value={kind}
        options={kinds.map(([id, k]) => [id, k.name] as const)}
        onChange={setChosen}
      >
        <Button plain onClick={measure}>
          Another module kind
        </Button>
        {generic}
      </OneOf>
      <KindSheet key={kind} id={kind} />
    </>
  )
}
