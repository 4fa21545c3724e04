/** What lies between the walls of a box and its modules, face by face, from the wall inward. */
import { useState } from 'react'

import { useDocument, useLive } from '../../design/live'
import { freeId } from '../../design/pointer'
import type { Box, Op } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { Choose } from '../../ui/Choose'
import { Button, Heading, Link } from '../../ui/parts'
import { type FaceName, FACES } from './OnFace'

type Rows = NonNullable<Box['layers'][FaceName]>
type Layer = Rows[string]

const WALLS: readonly FaceName[] = ['front', 'aft', 'left', 'right']
const ALONG = [
  ['first', 'lengthwise first'],
  ['second', 'crosswise'],
] as const

const STRIPS = [
  ['', 'each a piece of its own'],
  ['across', 'left, floor and right'],
  ['aft', 'front, floor and aft'],
] as const

export function Layers({ id, box }: { id: string; box: Box }) {
  const edit = useLive((s) => s.edit)
  const [face, setFace] = useState<FaceName>('left')
  const path = `/boxes/${id}/layers`
  const rows: Rows = box.layers[face] ?? {}
  const inward = Object.entries(rows).sort(([a, x], [b, y]) => x.order - y.order || a.localeCompare(b))
  const put = (on: FaceName, value: Rows): Op => ({
    op: box.layers[on] ? 'replace' : 'add',
    path: `${path}/${on}`,
    value,
  })
  function another() {
    const order = Math.max(0, ...inward.map(([, row]) => row.order + 1))
    const layer: Layer = { type: 'sheet', material: null, thickness_mm: 4, order }
    void edit([put(face, { ...rows, [freeId('layer', rows)]: layer })])
  }
  return (
    <section aria-label="Liners">
      <Heading>Liners</Heading>
      <Choose
        label="Floor and walls of one strip"
        value={box.one_strip ?? ''}
        options={STRIPS}
        onChange={(v) => void edit([{ op: 'replace', path: `/boxes/${id}/one_strip`, value: v || null }])}
      />
      <Choose label="On which face" value={face} options={FACES} onChange={setFace} />
      {inward.length === 0 && <p className="my-1 text-sm">Nothing lies on it.</p>}
      {inward.map(([key, row]) => (
        <OneLayer key={`${face}/${key}`} path={`${path}/${face}/${key}`} row={row} />
      ))}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button plain onClick={another}>
          Another layer
        </Button>
        {WALLS.includes(face) && (
          <Button
            plain
            onClick={() => void edit(WALLS.filter((on) => on !== face).map((on) => put(on, rows)))}
          >
            The same on all four walls
          </Button>
        )}
      </div>
    </section>
  )
}

/** A liner of the table brings its thickness; one that settles in time says so. */
function OneLayer({ path, row }: { path: string; row: Layer }) {
  const liners = useDocument().tables.liners ?? {}
  const edit = useLive((s) => s.edit)
  function made(key: string) {
    const chosen = liners[key]
    const ops: Op[] = [{ op: 'replace', path: `${path}/material`, value: key || null }]
    if (chosen) ops.push({ op: 'replace', path: `${path}/thickness_mm`, value: chosen.thickness_mm })
    void edit(ops)
  }
  function laid(type: string) {
    const { material, thickness_mm, order } = row
    void edit([{ op: 'replace', path, value: { type, material, thickness_mm, order } }])
  }
  return (
    <div className="border-b border-hair py-1">
      <Choose
        label="Of"
        value={row.material ?? ''}
        options={[
          ['', 'nobody has said'],
          ...Object.entries(liners).map(
            ([key, liner]) =>
              [key, `${liner.name}${liner.creeps === 'yes' ? ', settles in time' : ''}`] as const,
          ),
        ]}
        onChange={made}
      />
      <Blank path={`${path}/thickness_mm`} label="Thick" />
      <Choose
        label="Laid"
        value={row.type}
        options={[
          ['sheet', 'over the whole face'],
          ['runners', 'as runners, with room between'],
        ]}
        onChange={laid}
      />
      {row.type === 'runners' && (
        <>
          <Blank path={`${path}/wide_mm`} label="A runner is wide" />
          <Blank path={`${path}/between_mm`} label="Between two" />
          <Choose
            label="They run"
            value={row.along}
            options={ALONG}
            onChange={(v) => void edit([{ op: 'replace', path: `${path}/along`, value: v }])}
          />
        </>
      )}
      <Link onClick={() => void edit([{ op: 'remove', path }])}>take it out</Link>
    </div>
  )
}
