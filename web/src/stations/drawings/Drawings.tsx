/** Drawings: each sheet as it prints, and every file to take away. */
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'

import { useAnalysis, useLive, useLoaded } from '../../design/live'
import { sheetsQuery } from '../../design/queries'
import { Choose } from '../../ui/Choose'
import { Mark } from '../../ui/Mark'
import { Button, Caution, Heading, Teach, Title } from '../../ui/parts'
import { SentenceRows } from '../FindingRows'
import { Bench, Ledger, StationFrame } from '../Ledger'

const PAPERS = (['A4', 'A3', 'Letter', 'Tabloid'] as const).map((paper) => [paper, paper] as const)
const PROJECTIONS = [
  ['third angle', 'third angle: plan above'],
  ['first angle', 'first angle: plan below'],
] as const
const VERSIONS = [
  ['R2010', 'newer cutters, R2010'],
  ['R12', 'older ones, R12'],
] as const

export function Drawings() {
  const { project, revision, document } = useLoaded()
  const { released, findings } = useAnalysis()
  const { data: sheets, error } = useQuery(sheetsQuery(project, revision))
  const edit = useLive((s) => s.edit)
  const [chosen, setChosen] = useState('')
  if (Object.keys(document.boxes).length === 0)
    return <Teach>Nothing to cut yet. When a box has walls, its drawings and cut files appear here.</Teach>
  const shown = sheets?.find((s) => s.name === chosen) ?? sheets?.[0]
  const base = `/api/projects/${project}`
  const holding = findings.filter((f) => f.station === 'drawings' || (!released && f.state === 'foul'))
  return (
    <StationFrame>
      <Bench still>
        {error && <p role="alert">{error.message}</p>}
        {shown && (
          <img
            src={`${base}/sheets/${shown.name}?revision=${revision}`}
            alt={`Sheet: ${shown.title}`}
            className="w-full border border-edge bg-white shadow-sm"
          />
        )}
      </Bench>
      <Ledger label="Ledger">
        <Title right={released ? 'released' : 'NOT RELEASED'}>Drawings</Title>
        {released ? (
          <p className="m-0 flex items-center gap-2">
            <Mark state="clear" silent /> Nothing is foul; these may be cut.
          </p>
        ) : (
          <SentenceRows findings={holding} />
        )}
        <Heading>Take away</Heading>
        <div className="grid grid-cols-2 gap-2">
          <Download href={`${base}/files.zip`}>Whole pack</Download>
          <Download href={`${base}/files/drawings.pdf`}>All sheets, PDF</Download>
          <Download href={`${base}/files/cut-list.csv`}>Cut list, CSV</Download>
          <Download href={`${base}/export`}>Design file</Download>
        </div>
        <Heading>How it is drawn</Heading>
        <Choose
          label="Paper"
          value={document.sheets.paper}
          options={PAPERS}
          onChange={(paper) => void edit([{ op: 'replace', path: '/sheets/paper', value: paper }])}
        />
        <Choose
          label="Views stand in"
          value={document.sheets.projection}
          options={PROJECTIONS}
          onChange={(way) => void edit([{ op: 'replace', path: '/sheets/projection', value: way }])}
        />
        <Choose
          label="DXF for"
          value={document.sheets.dxf}
          options={VERSIONS}
          onChange={(version) => void edit([{ op: 'replace', path: '/sheets/dxf', value: version }])}
        />
        <Heading>Sheets</Heading>
        <ul className="m-0 list-none p-0">
          {sheets?.map((sheet) => (
            <li key={sheet.name} className="flex items-center justify-between border-b border-hair">
              <button
                type="button"
                aria-pressed={sheet.name === shown?.name}
                onClick={() => setChosen(sheet.name)}
                className={`min-h-10 flex-1 text-left hover:text-blue ${sheet.name === shown?.name ? 'font-bold text-blue' : ''}`}
              >
                {sheet.title}
              </button>
              {sheet.cut &&
                ['dxf', 'svg'].map((kind) => (
                  <a
                    key={kind}
                    href={`${base}/files/${sheet.cut}.${kind}`}
                    download
                    className="px-2 font-semibold text-blue"
                  >
                    {kind.toUpperCase()}
                  </a>
                ))}
            </li>
          ))}
        </ul>
        <Caution>
          Never weld on a box with cells in it; keep swarf off modules. Weld in short runs apart from each
          other and check for pull.
        </Caution>
        <Caution>Lift with rated gear and enough people; nobody under a load on a jack.</Caution>
      </Ledger>
    </StationFrame>
  )
}

function Download({ href, children }: { href: string; children: string }) {
  return (
    <Button plain asChild>
      <a href={href} download data-goes="/drawings">
        {children}
      </a>
    </Button>
  )
}
