/** A scan on its way in, and the points that put it in its place. */
import { useEffect, useState } from 'react'

import { wordsOf } from '../../../design/api'
import { useAnalysis, useDocument, useLive, useLoaded } from '../../../design/live'
import { freeId } from '../../../design/pointer'
import { scanProgress, startScan } from '../../../design/queries'
import type { Item, Scan } from '../../../design/types'
import { Share } from '../../../ui/Share'
import { Blank } from '../../../ui/Blank'
import { FileButton } from '../../../ui/FileButton'
import { length } from '../../../ui/format'
import { NameBlank } from '../../../ui/NameBlank'
import { Choose } from '../../../ui/Choose'
import { Button, Fact, Link } from '../../../ui/parts'
import { useUnits } from '../../../ui/units'
import { SentenceRows } from '../../FindingRows'
import { Removable } from '../../fields'
import { type Base, GapClass, PointBlanks } from '../../rows'

export const FILE_UNITS = [
  ['', 'the unit the file states'],
  ['mm', 'millimetres'],
  ['cm', 'centimetres'],
  ['m', 'metres'],
  ['in', 'inches'],
  ['ft', 'feet'],
] as const
const AS = [
  ['stays', 'a thing that stays'],
  ['in', 'a thing that goes in'],
  ['inside', 'the inside of a space'],
] as const
const TOLERANCES = ['0.5', '1', '2', '5', '10'] as const
const ASK_MS = 300

export function ScanIn() {
  const { project } = useLoaded()
  const { items } = useDocument()
  const edit = useLive((s) => s.edit)
  const units = useUnits('survey')
  const [unit, setUnit] = useState<(typeof FILE_UNITS)[number][0]>('')
  const [tolerance, setTolerance] = useState<(typeof TOLERANCES)[number]>('2')
  const [use, setUse] = useState<(typeof AS)[number][0]>('stays')
  const [scan, setScan] = useState<Scan | null>(null)
  const [name, setName] = useState('')
  const [message, setMessage] = useState('')
  const running = scan && !scan.done ? scan.id : null

  useEffect(() => {
    if (!running) return
    const timer = setInterval(() => {
      scanProgress(running).then(setScan, (error: Error) => {
        setScan(null)
        setMessage(error.message)
      })
    }, ASK_MS)
    return () => clearInterval(timer)
  }, [running])

  async function send(file: File) {
    setMessage('')
    setScan(null)
    setName(file.name.replace(/\.[^.]+$/, ''))
    try {
      setScan(await startScan(project, file, unit, Number(tolerance)))
    } catch (error) {
      setMessage(wordsOf(error))
    }
  }

  async function put() {
    if (!scan?.file) return
    const solid = {
      type: 'mesh',
      file: scan.file,
      tolerance_mm: Number(tolerance),
      inside: use === 'inside',
    }
    const order = Math.max(0, ...Object.values(items).map((i) => i.order)) + 1
    const value = { name: name || 'scan', state: use === 'inside' ? 'stays' : use, order, solid }
    if (await edit([{ op: 'add', path: `/items/${freeId(name || 'scan', items)}`, value }])) setScan(null)
  }

  return (
    <div className="max-w-[560px]" role="group" aria-label="Read a scan in">
      <Choose label="It is in" value={unit} options={FILE_UNITS} onChange={setUnit} />
      <Choose
        label="Simplified to within"
        value={tolerance}
        options={TOLERANCES.map((t) => [t, `${t} mm`] as const)}
        onChange={setTolerance}
      />
      <Choose label="It is" value={use} options={AS} onChange={setUse} />
      <FileButton
        message="Choose a file"
        name="Scan file"
        accept=".stl,.obj,.ply,.glb"
        disabled={Boolean(running)}
        onFile={(f) => void send(f)}
      />
      {scan && !scan.done && (
        <p role="status" className="my-1">
          <Share of={scan.share} name="Read so far" />
          {scan.message}
        </p>
      )}
      {(message || scan?.refused) && (
        <p role="alert" className="my-1 text-foul">
          {message || scan?.refused}
        </p>
      )}
      {scan?.done && scan.file && (
        <div className="my-2 rounded border border-blue bg-wash p-3">
          <Fact name="Triangles">
            {scan.triangles.toLocaleString('en-GB')}{' '}
            <span className="text-sm font-normal">
              of {scan.triangles_before.toLocaleString('en-GB')} in the file
            </span>
          </Fact>
          <Fact name="Its size">{scan.size_mm?.map((v) => length(v, units.length)).join(' × ')}</Fact>
          <Fact name="Its surface is">{scan.closed ? 'closed' : 'open: taken as a skin'}</Fact>
          {scan.notes.map((line) => (
            <p key={line} className="m-0 text-sm">
              {line}
            </p>
          ))}
          <p className="m-0 mt-1 text-sm">Is that the size it should have? If not, say another unit.</p>
          <Button className="mt-2" onClick={() => void put()}>
            Put it in the car
          </Button>
        </div>
      )}
    </div>
  )
}

/** Three recognisable points, in the file and on the car, put a scan in its place. */
export function ScanRow({ id, item, base }: { id: string; item: Item; base: Base | null }) {
  const edit = useLive((s) => s.edit)
  const { findings } = useAnalysis()
  const solid = item.solid
  if (solid?.type !== 'mesh') return null
  const path = `/items/${id}/solid`
  const ties = Object.entries(solid.ties)
  const said = findings.filter((f) => f.station === 'survey' && f.subjects.includes(`items/${id}`))
  function place() {
    const at = base?.at ?? [0, 0, 0]
    const ways = [
      [0, 0, 0],
      [500, 0, 0],
      [0, 500, 0],
    ]
    const value = Object.fromEntries(
      ways.map(([x = 0, y = 0], i) => [
        `p${i + 1}`,
        { name: `point ${i + 1}`, file_mm: [x, y, 0], at_mm: [at[0] + x, at[1] + y, at[2]] },
      ]),
    )
    void edit([{ op: 'replace', path: `${path}/ties`, value }])
  }
  return (
    <section aria-label={item.name} className="max-w-[640px] border-b border-hair py-2">
      <NameBlank path={`/items/${id}/name`} label="Name" />
      <GapClass path={`/items/${id}/gap_class`} />
      {ties.length === 0 ? (
        <Button plain onClick={place}>
          Place it by three points
        </Button>
      ) : (
        <>
          <p className="my-1 text-sm">
            Points that are recognised both in the file (millimetres there) and on the car.
          </p>
          {ties.map(([key, tie]) => (
            <Removable
              key={key}
              message={`Remove ${tie.name}`}
              onRemove={() =>
                void edit(
                  ties.length > 3
                    ? [{ op: 'remove', path: `${path}/ties/${key}` }]
                    : [{ op: 'replace', path: `${path}/ties`, value: {} }],
                )
              }
            >
              <NameBlank path={`${path}/ties/${key}/name`} label="Point" />
              <span className="narrow text-sm">in the file</span>
              <Triple path={`${path}/ties/${key}/file_mm`} name={`${tie.name}, file`} />
              <span className="narrow text-sm">on the car</span>
              <PointBlanks path={`${path}/ties/${key}/at_mm`} base={base} />
            </Removable>
          ))}
          <Link
            onClick={() =>
              void edit([
                {
                  op: 'add',
                  path: `${path}/ties/${freeId('p', solid.ties)}`,
                  value: {
                    name: `point ${ties.length + 1}`,
                    file_mm: [0, 0, 500],
                    at_mm: base?.at ?? [0, 0, 500],
                  },
                },
              ])
            }
          >
            another point
          </Link>
        </>
      )}
      <SentenceRows findings={said} />
    </section>
  )
}

function Triple({ path, name }: { path: string; name: string }) {
  return (
    <span className="flex flex-wrap gap-x-3">
      {['x', 'y', 'z'].map((word, i) => (
        <Blank key={word} path={`${path}/${i}`} label={word} name={`${name}, ${word}`} list="survey" />
      ))}
    </span>
  )
}
