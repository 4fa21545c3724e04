/** Room that faces of a thing or a box keep, said by one press on the face: it goes along when the thing is moved. */
import { useState } from 'react'

import { useLive } from '../design/live'
import { freeId } from '../design/pointer'
import rules from '../design/rules.json'
import type { KeepClear } from '../design/types'
import { Blank } from '../ui/Blank'
import { NameBlank } from '../ui/NameBlank'
import { Choose } from '../ui/Choose'
import { OneOf } from '../ui/Toggles'
import { Heading } from '../ui/parts'
import { FieldRow, Removable } from './fields'

const WANTED = Object.keys(rules.face_rooms_mm) as (keyof typeof rules.face_rooms_mm)[]
const FACES = ['front', 'aft', 'left', 'right', 'base', 'top'] as const
type Face = KeepClear['face']
const ACROSS = [
  ['front', 'aft'],
  ['left', 'right'],
  ['base', 'top'],
] as const
/** The faces that a face has an edge with; what lies low comes first. */
const besides = (face: Face) =>
  ACROSS.filter((pair) => !pair.some((one) => one === face))
    .flat()
    .reverse()
const runBy = (face: Face, wide_mm: number) => ({
  beside: besides(face).find((one) => one !== 'top'),
  wide_mm,
})
const asWords = (faces: readonly string[]) => faces.map((face) => [face, face] as const)

export function KeptFaces({ path, rows }: { path: string; rows: Readonly<Record<string, KeepClear>> }) {
  const edit = useLive((s) => s.edit)
  const [reason, setReason] = useState<(typeof WANTED)[number]>('a hand')
  const depth_mm = rules.face_rooms_mm[reason]
  const add = (face: Face) => {
    const run = reason === 'a corridor' ? { run: runBy(face, depth_mm) } : {}
    const value = { face, depth_mm, reason, ...run }
    void edit([{ op: 'add', path: `${path}/${freeId(`${face}-room`, rows)}`, value }])
  }
  return (
    <section aria-label="Room its faces keep">
      <Heading>Room its faces keep</Heading>
      <OneOf
        bare
        label="Room for"
        value={reason}
        options={WANTED.map((words) => [words, words] as const)}
        onChange={(next) => setReason(next as typeof reason)}
      />
      <div role="group" aria-label="Before its" className="my-1 flex flex-wrap gap-1">
        {FACES.map((face) => (
          <button
            key={face}
            type="button"
            aria-label={`${reason} before its ${face}`}
            onClick={() => add(face)}
            className="min-h-9 rounded border-[1.5px] border-edge bg-sheet px-2 font-semibold hover:border-blue hover:text-blue"
          >
            {face}
          </button>
        ))}
      </div>
      {Object.entries(rows).map(([key, row]) => (
        <Kept key={key} path={`${path}/${key}`} row={row} />
      ))}
    </section>
  )
}

function Kept({ path, row }: { path: string; row: KeepClear }) {
  const edit = useLive((s) => s.edit)
  const { face, run } = row
  const along = (beside: Face | '') => {
    const value = beside ? { ...(run ?? runBy(face, row.depth_mm)), beside } : null
    void edit([{ op: 'replace', path: `${path}/run`, value }])
  }
  return (
    <Removable
      message={`Remove the room before its ${face}`}
      onRemove={() => void edit([{ op: 'remove', path }])}
    >
      <FieldRow
        path={path}
        field={{
          kind: 'choose',
          at: 'face',
          label: 'Before its',
          options: asWords(run ? besides(run.beside) : FACES),
        }}
        base={null}
      />
      <Blank path={`${path}/depth_mm`} label="Keep clear" list="survey" />
      <Choose
        label="Along"
        value={run?.beside ?? ''}
        options={[['', 'the whole face'], ...besides(face).map((one) => [one, `its ${one} edge`] as const)]}
        onChange={along}
      />
      {run && <Blank path={`${path}/run/wide_mm`} label="So wide" list="survey" />}
      <NameBlank path={`${path}/reason`} label="For" />
    </Removable>
  )
}
