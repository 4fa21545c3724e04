/** Drawings: each sheet of the pack as it prints, and every file to take away. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'

import { useAnalysis, useLive, useLoaded } from '../../design/live'
import { cutAs } from '../../design/orders'
import { askForPack, isUnderWay, packQuery } from '../../design/queries'
import type { MadePack, Pack, PackSheet } from '../../design/types'
import { Mark } from '../../ui/Mark'
import { Button, Caution, Heading, Teach, Title } from '../../ui/parts'
import { OneOf } from '../../ui/Toggles'
import { Share } from '../../ui/Share'
import { SentenceRows } from '../FindingRows'
import { Bench, Ledger, StationFrame } from '../Ledger'
import { HowDrawn } from './HowDrawn'
import { TakeAway } from './TakeAway'

export function Drawings() {
  const { project, revision, document } = useLoaded()
  const { data: pack, error } = useQuery(packQuery(project, revision))
  const [chosen, setChosen] = useState('')
  const [large, setLarge] = useState(false)
  if (Object.keys(document.boxes).length === 0)
    return <Teach>Nothing to cut yet. When a box has walls, its drawings and cut files appear here.</Teach>
  const made = pack?.made ?? null
  const sheets = made?.groups.flatMap((group) => group.sheets) ?? []
  const shown = sheets.find((s) => s.name === chosen) ?? sheets[0]
  return (
    <StationFrame>
      <Bench still>
        {error && <p role="alert">{error.message}</p>}
        {!made && <Teach>{pack?.asked ? 'The sheets are being drawn.' : 'No sheets are drawn yet.'}</Teach>}
        {made && shown && (
          <>
            {shown.changed && (
              <p className="m-0 mb-2 flex items-center gap-2">
                <Mark state="unknown" silent /> Out of date since {shown.changed}.
                {shown.in_metal.length > 0 && ` Already: ${shown.in_metal.join(', ')}.`}
              </p>
            )}
            {shown.parts.length > 0 && <HowFar sheet={shown} />}
            <button
              type="button"
              aria-label={large ? 'Show the whole sheet' : 'Show it large, to read'}
              aria-pressed={large}
              onClick={() => setLarge(!large)}
              className={`block ${large ? 'w-[230%] cursor-zoom-out' : 'w-full cursor-zoom-in'}`}
            >
              <img
                src={`/api/projects/${project}/pack/${made.id}/sheets/${encodeURIComponent(shown.name)}`}
                alt={`Sheet: ${shown.title}`}
                className="w-full border border-edge bg-white shadow-sm"
              />
            </button>
          </>
        )}
      </Bench>
      <Ledger label="Ledger">
        <Standing />
        <Making pack={pack} />
        {made && <TakeAway base={`/api/projects/${project}/pack/${made.id}`} pack={made} />}
        <HowDrawn />
        {made && <Sheets pack={made} shown={shown?.name ?? ''} onShow={setChosen} />}
        <Caution>
          Never weld on a box with cells in it; keep swarf off modules. Weld in short runs apart from each
          other and check for pull.
        </Caution>
        <Caution>Lift with rated gear and enough people; nobody under a load on a jack.</Caution>
      </Ledger>
    </StationFrame>
  )
}

const STATES = [
  ['drawn', 'only drawn'],
  ['sent', 'sent out'],
  ['cut', 'cut'],
] as const

/** Whether the part is in metal yet: a later change that alters it says so. */
function HowFar({ sheet }: { sheet: PackSheet }) {
  const { project, document } = useLoaded()
  const edit = useLive((s) => s.edit)
  const mark = sheet.name.split('-')[0] ?? ''
  const state = document.cut_parts[sheet.parts[0] ?? '']?.state ?? 'drawn'
  const put = useMutation({
    mutationFn: async (next: string) =>
      edit((await cutAs(project, mark, next as 'drawn' | 'sent' | 'cut')).patch),
  })
  return (
    <div className="mb-2 flex items-center gap-2">
      <span>{mark} is</span>
      <OneOf
        label={`How far ${mark} is`}
        value={state}
        options={STATES}
        onChange={(next) => put.mutate(next)}
      />
      {put.error && <span role="alert">{put.error.message}</span>}
    </div>
  )
}

/** Whether anything stands in the way of cutting, before anything is taken away. */
function Standing() {
  const { released, findings } = useAnalysis()
  const holding = findings.filter((f) => f.station === 'drawings' || (!released && f.state === 'foul'))
  const guesses = findings.filter((f) => f.state === 'unknown').length
  return (
    <>
      <Title right={released ? 'released' : 'NOT RELEASED'}>Drawings</Title>
      {released ? (
        <p className="m-0 flex items-center gap-2">
          <Mark state="clear" silent /> Nothing is foul; these may be cut.
        </p>
      ) : (
        <SentenceRows findings={holding} />
      )}
      {guesses > 0 && (
        <p className="m-0 flex items-center gap-2">
          <Mark state="unknown" silent /> {guesses} not known: a guess, or not measured.
        </p>
      )}
    </>
  )
}

/** How far the pack has come, and how old it is. */
function Making({ pack }: { pack: Pack | undefined }) {
  const { project } = useLoaded()
  const queries = useQueryClient()
  const ask = useMutation({
    mutationFn: () => askForPack(project),
    onSettled: () => queries.invalidateQueries({ queryKey: ['pack', project] }),
  })
  if (!pack) return null
  if (pack.asked && isUnderWay(pack))
    return (
      <p className="m-0 mt-2" role="status">
        <Share of={pack.asked.share} name="How far the pack has come" /> {pack.asked.message}
      </p>
    )
  const old = pack.made && pack.made.revision < pack.revision
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      {(!pack.made || old) && (
        <Button onClick={() => ask.mutate()} disabled={ask.isPending}>
          {old ? 'Draw them afresh' : 'Draw the sheets'}
        </Button>
      )}
      {pack.made && (
        <span>
          {old
            ? `Drawn at revision ${pack.made.revision}; the car is at ${pack.revision}.`
            : `Drawn at revision ${pack.made.revision}, as the car stands.`}
        </span>
      )}
      {pack.asked?.state === 'refused' && <p role="alert">{pack.asked.message}</p>}
      {ask.error && <p role="alert">{ask.error.message}</p>}
    </div>
  )
}

function Sheets({ pack, shown, onShow }: { pack: MadePack; shown: string; onShow: (name: string) => void }) {
  return pack.groups.map((group) => (
    <div key={group.title}>
      <Heading>{group.title}</Heading>
      <ul className="m-0 list-none p-0">
        {group.sheets.map((sheet) => (
          <li key={sheet.name} className="flex items-center justify-between border-b border-hair">
            <button
              type="button"
              aria-pressed={sheet.name === shown}
              onClick={() => onShow(sheet.name)}
              className={`flex min-h-9 flex-1 items-center gap-1.5 text-left hover:text-blue ${sheet.name === shown ? 'font-bold text-blue' : ''}`}
            >
              {sheet.changed && <Mark state="unknown" />} {short(sheet)}
            </button>
            {sheet.cut && <CutFiles name={sheet.cut} />}
          </li>
        ))}
      </ul>
    </div>
  ))
}

/** Without the box, which the heading says. */
function short(sheet: PackSheet): string {
  const [, what, page] = /^Box \w+, ([^:]+): .*?(, sheet \d+ of \d+)?$/.exec(sheet.title) ?? []
  const rest = what ? `${what}${page ?? ''}` : sheet.title
  return rest.charAt(0).toUpperCase() + rest.slice(1)
}

/** Of the car as it stands now, whatever the sheet shows. */
function CutFiles({ name }: { name: string }) {
  const { project } = useLoaded()
  return ['dxf', 'svg'].map((kind) => (
    <a
      key={kind}
      href={`/api/projects/${project}/cut/${name}.${kind}`}
      download
      className="px-2 font-semibold text-blue"
    >
      {kind.toUpperCase()}
    </a>
  ))
}
