/** A module unfolded: its six faces with what stands on them. Choosing a face edits it. */
import type { ModuleKind } from '../../design/types'
import { length } from '../../ui/format'
import { useUnits } from '../../ui/units'
import { ACROSS, type Face, type Panel, panels, type UnfoldedSide, WORD } from './faces'

const EDGE = 14

export function Unfolded({
  kind,
  face,
  onFace,
}: {
  kind: ModuleKind
  face: Face
  onFace: (face: Face) => void
}) {
  const layout = panels(kind)
  return (
    <svg
      viewBox={`${-EDGE} ${-EDGE} ${layout.width + 2 * EDGE} ${layout.height + 2 * EDGE}`}
      className="w-full max-w-[560px]"
      role="group"
      aria-label={`${kind.name}, unfolded`}
    >
      {layout.panels.map((panel) => (
        <FacePanel
          key={panel.face}
          panel={panel}
          kind={kind}
          chosen={panel.face === face}
          onChoose={() => onFace(panel.face)}
        />
      ))}
    </svg>
  )
}

function FacePanel({
  panel,
  kind,
  chosen,
  onChoose,
}: {
  panel: Panel
  kind: ModuleKind
  chosen: boolean
  onChoose: () => void
}) {
  const { face, x, y, wide, high } = panel
  const units = useUnits('stock')
  const asks = kind.face_gap_mm[face]
  const rests = (kind.may_rest_on as Face[]).includes(face)
  const said = message(kind, face, asks === undefined ? '' : length(asks, units.length))
  return (
    <g
      transform={`translate(${x},${y})`}
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      className="cursor-pointer"
      onClick={onChoose}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return
        event.preventDefault()
        event.stopPropagation()
        onChoose()
      }}
    >
      <title>{said}</title>
      <rect
        width={wide}
        height={high}
        fill={chosen ? 'var(--color-wash)' : '#e2eae7'}
        stroke={chosen ? 'var(--color-blue)' : 'var(--color-slate)'}
        strokeWidth={chosen ? 3 : 1.4}
      />
      {rests && <Feet wide={wide} high={high} />}
      <Holes kind={kind} face={face} wide={wide} high={high} />
      <Plates kind={kind} face={face} wide={wide} high={high} />
      {kind.taps === face && <Taps wide={wide} high={high} />}
      {kind.coolant === face && <Ports wide={wide} high={high} />}
      <Squeeze kind={kind} face={face} wide={wide} high={high} />
      <text
        x={5}
        y={14}
        fontSize={12}
        fontWeight={650}
        fill={chosen ? 'var(--color-blue)' : 'var(--color-ink)'}
      >
        {WORD[face]}
      </text>
      {asks !== undefined && (
        <text x={wide / 2} y={high - 5} fontSize={12} textAnchor="middle">
          asks {length(asks, units.length)}
        </text>
      )}
    </g>
  )
}

function message(kind: ModuleKind, face: Face, asks: string): string {
  const words = [
    WORD[face],
    kind.terminals === face && !kind.minus && 'both terminals',
    kind.terminals === face && kind.minus && kind.minus !== face && 'plus terminal',
    kind.minus === face && kind.terminals !== face && 'minus terminal',
    kind.taps === face && 'tap plug',
    kind.coolant === face && 'coolant ports',
    (kind.may_rest_on as Face[]).includes(face) && 'may be down',
    asks && `asks ${asks}`,
  ]
  return words.filter(Boolean).join(', ')
}

interface On {
  wide: number
  high: number
}

/** Two feet along its lower edge: it may stand on this face. */
function Feet({ wide, high }: On) {
  const d = `M${wide * 0.12},${high - 1} v-7 h${wide * 0.18} v7 M${wide * 0.7},${high - 1} v-7 h${wide * 0.18} v7`
  return <path d={d} fill="none" stroke="var(--color-ink)" strokeWidth={2} />
}

const SHIFT: Record<UnfoldedSide, [number, number]> = {
  left: [-1, 0],
  right: [1, 0],
  up: [0, -1],
  down: [0, 1],
}

function Plates({ kind, face, wide, high }: On & { kind: ModuleKind; face: Face }) {
  const apart = kind.minus !== null && kind.minus !== undefined && kind.minus !== kind.terminals
  if (kind.terminals !== face && !(apart && kind.minus === face)) return null
  const [cx, cy] = [wide / 2, high * 0.42]
  if (apart) return <Plate sign={kind.terminals === face ? '+' : '−'} x={cx} y={cy} />
  const ways = Object.entries(ACROSS[face]) as [UnfoldedSide, Face][]
  const way = ways.find(([, next]) => next === kind.plus_towards)?.[0]
  const [dx, dy] = way ? SHIFT[way] : [0.8, 0]
  const by = Math.min(30, (dx ? wide : high) / 2 - 11)
  return (
    <>
      <Plate sign="+" x={cx + dx * by} y={cy + dy * by} unsure={!way} />
      <Plate sign="−" x={cx - dx * by} y={cy - dy * by} unsure={!way} />
    </>
  )
}

function Plate({ sign, x, y, unsure = false }: { sign: string; x: number; y: number; unsure?: boolean }) {
  return (
    <g transform={`translate(${x - 9},${y - 9})`}>
      <rect
        width={18}
        height={18}
        rx={2}
        fill={unsure ? '#fff' : 'var(--color-slate)'}
        stroke="var(--color-slate)"
        strokeDasharray={unsure ? '3 2' : undefined}
      />
      <text
        x={9}
        y={14}
        textAnchor="middle"
        fontSize={15}
        fontWeight={800}
        fill={unsure ? 'var(--color-slate)' : '#fff'}
      >
        {sign}
      </text>
    </g>
  )
}

function Taps({ wide, high }: On) {
  return (
    <g transform={`translate(${wide * 0.5 - 14},${high * 0.68 - 6})`} fill="#fff" stroke="var(--color-ink)">
      <rect width={28} height={11} rx={2} />
      <path d="M5,3.5 v4 M9.5,3.5 v4 M14,3.5 v4 M18.5,3.5 v4 M23,3.5 v4" />
    </g>
  )
}

function Ports({ wide, high }: On) {
  return (
    <g fill="#fff" stroke="var(--color-ink)" strokeWidth={1.5}>
      {[0.18, 0.82].map((s) => (
        <circle key={s} cx={wide * s} cy={high * 0.68} r={6} />
      ))}
    </g>
  )
}

/** Its own mounting holes go through from top to base. */
function Holes({ kind, face, wide, high }: On & { kind: ModuleKind; face: Face }) {
  if (!kind.mount_holes || (face !== 'top' && face !== 'base')) return null
  const { count } = kind.mount_holes
  const spots = Array.from({ length: Math.min(count, 12) }, (_, i) => {
    const along = count <= 2 ? (i + 0.5) / count : (Math.floor(i / 2) + 0.5) / Math.ceil(count / 2)
    return [8 + along * (wide - 16), count <= 2 || i % 2 ? high - 18 : 22] as const
  })
  return (
    <g fill="var(--color-sheet)" stroke="var(--color-ink)">
      {spots.map(([cx, cy], i) => (
        <circle key={i} cx={cx} cy={cy} r={3.2} />
      ))}
    </g>
  )
}

const PRESSED: Record<string, Face[]> = {
  length: ['end_a', 'end_b'],
  width: ['side_a', 'side_b'],
  height: ['top', 'base'],
}

/** Pressed faces are ruled off like a clamp's jaws. */
function Squeeze({ kind, face, wide, high }: On & { kind: ModuleKind; face: Face }) {
  if (!kind.compression || !PRESSED[kind.compression.axis]?.includes(face)) return null
  return (
    <rect
      x={4}
      y={4}
      width={wide - 8}
      height={high - 8}
      fill="none"
      stroke="var(--color-copper)"
      strokeWidth={2.5}
      strokeDasharray="8 4"
    />
  )
}
