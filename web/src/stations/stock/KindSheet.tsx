/** One module kind: its six faces, edited on the drawing, and the figures of its sheet. */
import { useState } from 'react'

import { useDocument, useLive } from '../../design/live'
import { TYPED } from '../../design/figure'
import { begin, isTaken } from '../../design/taken'
import type { ModuleKind } from '../../design/types'
import { Blank } from '../../ui/Blank'
import { length } from '../../ui/format'
import { NameBlank } from '../../ui/NameBlank'
import { Choose } from '../../ui/Choose'
import { Tick } from '../../ui/Tick'
import { Heading, Link } from '../../ui/parts'
import { useUnits } from '../../ui/units'
import { ACROSS, type Face, WORD } from './faces'
import { Unfolded } from './Unfolded'

export const NEW_KIND = {
  name: 'New module kind',
  size_mm: [400, 200, 100],
  mass_kg: 15,
  cells: { series: 6, parallel: 1 },
  nominal_v: 22.2,
  full_v: 25.2,
  may_rest_on: ['base'],
  face_gap_mm: { end_a: 60 },
  neighbour_gap_mm: 4,
}

export function KindSheet({ id }: { id: string }) {
  const document = useDocument()
  const edit = useLive((s) => s.edit)
  const [face, setFace] = useState<Face>('end_a')
  const kind = document.module_kinds[id] as ModuleKind
  const path = `/module_kinds/${id}`
  const used =
    Object.values(document.modules).some((m) => m.kind === id) ||
    Object.values(document.boxes).some((b) => Object.values(b.blocks).some((k) => k.kind === id))
  return (
    <>
      {kind.made_up && (
        <p role="note" className="my-2 border-l-4 border-tight bg-white py-1.5 pl-3 text-sm">
          Made-up figures round a generic format: measure yours before you count on them.{' '}
          <Link onClick={() => void edit([{ op: 'replace', path: `${path}/made_up`, value: false }])}>
            They are measured now
          </Link>
        </p>
      )}
      <div className="grid grid-cols-1 gap-x-8 lg:grid-cols-[1fr_330px]">
        <div>
          <Unfolded
            kind={isTaken(document, `${path}/face_gap_mm`) ? kind : { ...kind, face_gap_mm: {} }}
            face={face}
            onFace={setFace}
          />
          <Sizes path={path} kind={kind} />
          <OnFace path={path} kind={kind} face={face} />
        </div>
        <div>
          <Heading>Sheet</Heading>
          <NameBlank path={`${path}/name`} label="Name" />
          {['Length (end A to end B)', 'Width (side A to side B)', 'Height (base to top)'].map((label, i) => (
            <Blank
              key={label}
              path={`${path}/size_mm/${i}`}
              label={label}
              list="stock"
              neighbours={(kind.size_mm as number[]).filter(
                (_, n) => n !== i && isTaken(document, `${path}/size_mm/${n}`),
              )}
            />
          ))}
          <Blank path={`${path}/mass_kg`} label="Mass" kind="mass" />
          <Blank path={`${path}/tol_kg`} label="Mass, ±" kind="mass" />
          <Blank path={`${path}/cells/series`} label="Cells in series" kind="number" whole />
          <Blank path={`${path}/cells/parallel`} label="Cells in parallel" kind="number" whole />
          <Blank path={`${path}/nominal_v`} label="Nominal" kind="voltage" />
          <Blank path={`${path}/full_v`} label="Full" kind="voltage" />
          <Blank path={`${path}/empty_v`} label="Empty" kind="voltage" optional />
          <Blank path={`${path}/capacity_ah`} label="Capacity (Ah)" kind="number" optional />
          <Heading>Room round it</Heading>
          <Blank path={`${path}/above_mm`} label="Above whatever is up" list="stock" />
          <Blank path={`${path}/neighbour_gap_mm`} label="To a neighbour" list="stock" />
          {(['length', 'width', 'height'] as const).map((way) => (
            <Blank key={way} path={`${path}/growth_mm/${way}`} label={`Growth in ${way}`} list="stock" />
          ))}
          <Squeeze path={path} kind={kind} />
          <MountHoles path={path} kind={kind} />
          <NameBlank path={`${path}/source`} label="Source" />
          <p className="mt-3">
            {!used && <Link onClick={() => void edit([{ op: 'remove', path }])}>Remove this kind</Link>}
          </p>
        </div>
      </div>
    </>
  )
}

function Sizes({ path, kind }: { path: string; kind: ModuleKind }) {
  const document = useDocument()
  const units = useUnits('stock')
  const [l = 0, w = 0, h = 0] = kind.size_mm as number[]
  const shown = [l, w, h].map((v) => length(v, units.length)).join(' × ')
  if (!isTaken(document, path))
    return (
      <p className="m-0 text-sm text-tight">
        <b>Not taken yet</b>: drawn with figures that nobody measured. Fill the empty blanks.
      </p>
    )
  return (
    <p className="narrow m-0 text-sm text-soft">
      {kind.cells.series}s{kind.cells.parallel}p, {shown}
      {units.length === 'mm' && ' mm'} long, wide, high. Short sides are drawn larger than true.
    </p>
  )
}

/** What stands on the chosen face, and the room it asks for. */
function OnFace({ path, kind, face }: { path: string; kind: ModuleKind; face: Face }) {
  const edit = useLive((s) => s.edit)
  const rest = kind.may_rest_on as Face[]
  const put = (name: string, value: unknown) => void edit([{ op: 'replace', path: `${path}/${name}`, value }])
  const asked = face in kind.face_gap_mm
  const room = `${path}/face_gap_mm/${face}`
  const apart = Boolean(kind.minus) && kind.minus !== kind.terminals
  const plus = kind.terminals === face
  const minus = apart ? kind.minus === face : plus
  const beside = Object.values(ACROSS[face]).map((f) => [f, `towards ${WORD[f]}`] as const)
  function terminals(what: string) {
    const patch = {
      both: { terminals: face, minus: null, plus_towards: null },
      plus: {
        terminals: face,
        minus: kind.minus ?? (plus ? opposite(face) : kind.terminals),
        plus_towards: null,
      },
      minus: { terminals: plus ? opposite(face) : kind.terminals, minus: face, plus_towards: null },
    }[what]
    if (patch)
      void edit(
        Object.entries(patch).map(([key, value]) => ({ op: 'replace', path: `${path}/${key}`, value })),
      )
  }
  return (
    <section aria-label={`On ${WORD[face]}`} className="max-w-[520px]">
      <Heading>On {WORD[face]}</Heading>
      <Choose
        label="Terminals"
        value={plus && minus ? 'both' : plus ? 'plus' : minus ? 'minus' : ''}
        options={[
          ['', 'none here'],
          ['both', 'plus and minus'],
          ['plus', 'plus alone'],
          ['minus', 'minus alone'],
        ]}
        onChange={terminals}
      />
      {plus && minus && (
        <Choose
          label="The plus stands"
          value={(kind.plus_towards ?? '') as Face | ''}
          options={[['', 'not said'], ...beside]}
          onChange={(v) => put('plus_towards', v || null)}
        />
      )}
      <div className="flex flex-wrap gap-x-6">
        <Tick
          label="Cell-tap plug"
          value={kind.taps === face}
          onChange={(on) => put('taps', on ? face : null)}
        />
        <Tick
          label="Coolant ports"
          value={kind.coolant === face}
          onChange={(on) => put('coolant', on ? face : null)}
        />
        <Tick
          label="May be down"
          value={rest.includes(face)}
          onChange={(on) => {
            const next = on ? [...rest, face] : rest.filter((f) => f !== face)
            if (next.length) put('may_rest_on', next)
          }}
        />
      </div>
      <Blank
        key={face}
        path={room}
        label={`Room before ${WORD[face]}`}
        list="stock"
        optional
        into={{
          ops: [{ op: asked ? 'replace' : 'add', path: room, value: TYPED }],
          none: asked ? [{ op: 'remove', path: room }] : [],
        }}
      />
    </section>
  )
}

function opposite(face: Face): Face {
  const pairs: Record<Face, Face> = {
    end_a: 'end_b',
    end_b: 'end_a',
    side_a: 'side_b',
    side_b: 'side_a',
    base: 'top',
    top: 'base',
  }
  return pairs[face]
}

const AXES = [
  ['', 'none'],
  ['length', 'along its length'],
  ['width', 'along its width'],
  ['height', 'along its height'],
] as const

/** Held under compression: the size on the sheet is the clamped one. */
function Squeeze({ path, kind }: { path: string; kind: ModuleKind }) {
  const edit = useLive((s) => s.edit)
  const document = useDocument()
  const squeeze = kind.compression
  const clamped = squeeze
    ? (kind.size_mm as number[])[['length', 'width', 'height'].indexOf(squeeze.axis)]
    : 0
  return (
    <>
      <Choose
        label="Compression"
        value={squeeze?.axis ?? ''}
        options={AXES}
        onChange={(axis) => {
          const size = (kind.size_mm as number[])[['length', 'width', 'height'].indexOf(axis)]
          void edit([
            ...begin(document, 'replace', `${path}/compression`, axis ? { axis, free_mm: size } : null),
            { op: 'replace', path: `${path}/clamp`, value: axis !== '' },
          ])
        }}
      />
      {squeeze && (
        <>
          <Blank
            path={`${path}/compression/free_mm`}
            label="Free size, released"
            list="stock"
            neighbours={[clamped ?? 0]}
          />
          <p className="narrow m-0 text-sm text-soft">
            Clamped it is the size above; the box is drawn for the free one.
          </p>
        </>
      )}
    </>
  )
}

function MountHoles({ path, kind }: { path: string; kind: ModuleKind }) {
  const edit = useLive((s) => s.edit)
  const document = useDocument()
  const put = (value: unknown) => void edit(begin(document, 'replace', `${path}/mount_holes`, value))
  return kind.mount_holes ? (
    <>
      <Blank path={`${path}/mount_holes/count`} label="Own mounting holes" kind="number" whole />
      <Blank path={`${path}/mount_holes/diameter_mm`} label="Their diameter" list="stock" />
      <Blank path={`${path}/mount_holes/from_ends_mm`} label="Their middles from the ends" list="stock" />
      <Blank path={`${path}/mount_holes/from_sides_mm`} label="Their middles from the sides" list="stock" />
      <Blank path={`${path}/mount_holes/sunk_mm`} label="A nut sinks in by" list="stock" />
      <Link onClick={() => put(null)}>It has no holes of its own</Link>
    </>
  ) : (
    <Link onClick={() => put({ count: 4, diameter_mm: 9 })}>It has mounting holes of its own</Link>
  )
}
