/** Room that faces of a thing or a box keep, said by one press on the face: it goes along when the thing is moved. */
import { useState } from 'react'

import { useLive } from '../design/live'
import { freeId } from '../design/pointer'
import rules from '../design/rules.json'
import { Blank } from '../ui/Blank'
import { NameBlank } from '../ui/NameBlank'
import { Heading, OneOf } from '../ui/parts'
import { FieldRow, Removable } from './fields'

const WANTED = Object.keys(rules.face_rooms_mm) as (keyof typeof rules.face_rooms_mm)[]
const FACES = ['front', 'aft', 'left', 'right', 'base', 'top'] as const

export function KeptFaces({
  path,
  rows,
}: {
  path: string
  rows: Readonly<Record<string, { face: string; reason?: string }>>
}) {
  const edit = useLive((s) => s.edit)
  const [reason, setReason] = useState<(typeof WANTED)[number]>('a hand')
  const depth_mm = rules.face_rooms_mm[reason]
  const add = (face: string) =>
    void edit([
      { op: 'add', path: `${path}/${freeId(`${face}-room`, rows)}`, value: { face, depth_mm, reason } },
    ])
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
        <Removable
          key={key}
          says={`Remove the room before its ${row.face}`}
          onRemove={() => void edit([{ op: 'remove', path: `${path}/${key}` }])}
        >
          <FieldRow
            path={`${path}/${key}`}
            field={{
              kind: 'choose',
              at: 'face',
              label: 'Before its',
              options: FACES.map((f) => [f, f] as const),
            }}
            base={null}
          />
          <Blank path={`${path}/${key}/depth_mm`} label="Keep clear" list="survey" />
          <NameBlank path={`${path}/${key}/reason`} label="For" />
        </Removable>
      ))}
    </section>
  )
}
