/** Plan over side, to one scale, aligned on the same aft axis, with the rule between them. */
import { type ReactNode, useCallback, useId, useLayoutEffect, useMemo, useRef, useState } from 'react'

import { boxOf, useChoice } from '../design/choice'
import { useAnalysis, useDocument, useLoaded } from '../design/live'
import type { Analysis, Document, Finding, LengthUnit, Shape } from '../design/types'
import { length } from '../ui/format'
import { OneOf } from '../ui/Toggles'
import { useTouch } from '../ui/touch'
import { useUnits } from '../ui/units'
import { Balance, balanceArea } from './Balance'
import { Car } from './Car'
import { useCut } from './cut'
import { CutDashes, CutMarker } from './CutLine'
import { type Area, areaOf, arrangeFlags, Flags } from './Flags'
import { Patterns } from './Patterns'
import { NudgePad } from './NudgePad'
import { PlaceBlanks } from './PlaceBlanks'
import { Rule } from './Rule'
import { SectionPanel } from './SectionPanel'
import {
  AS_IS,
  bayWindow,
  carWindow,
  closer,
  looked,
  makeScale,
  type Scale,
  tallOf,
  type ViewName,
} from './scale'
import { boxAreas, Boxes, HardPoints, Names, pointAreas, Surroundings } from './Things'
import { Shifted } from './Sheet'
import { type LookBy, View } from './View'

const MOST_FLAGS = 5

export function PlanSide({
  flags = true,
  step = 1,
  picks = false,
}: {
  flags?: boolean
  step?: number
  picks?: boolean
}) {
  const document = useDocument()
  const committed = useLoaded().analysis
  const analysis = useAnalysis()
  const area = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState({ width: 900, height: 640 })
  const touch = useTouch()
  const selected = useChoice((s) => s.selected)
  const [focus, setFocus] = useState(() => (touch ? firstSpace(document, boxOf(selected)) : 'car'))
  const [look, setLook] = useState(AS_IS)
  const [only, setOnly] = useState<ViewName>('plan')
  useLayoutEffect(() => {
    const frame = area.current as HTMLDivElement
    // nothing is measured while it is hidden, as for printing
    const measure = () =>
      frame.clientWidth > 0 &&
      setSize({ width: Math.floor(frame.clientWidth), height: Math.floor(frame.clientHeight) })
    const watch = new ResizeObserver(measure)
    watch.observe(frame)
    measure()
    return () => watch.disconnect()
  }, [])
  const window = useMemo(
    () => (focus !== 'car' && bayWindow(focus, committed.shapes)) || carWindow(document, committed.shapes),
    [document, committed.shapes, focus],
  )
  const scale = useMemo(
    () => makeScale(looked(window, look), size.width, size.height, touch ? only : undefined),
    [window, look, size, touch, only],
  )
  const onLook: LookBy = {
    aside: (aft, right, up) =>
      setLook((l) => ({ zoom: l.zoom, aft: l.aft + aft, right: l.right + right, up: l.up + up })),
    closer: (factor, spot) => setLook((l) => closer(l, factor, spot, window)),
  }
  const unit = useUnits('place').length
  const shownFlags = useFlags(analysis, flags)
  return (
    <div className="relative flex min-h-0 min-w-0 flex-1 flex-col">
      <AtBox scale={scale} shapes={committed.shapes} />
      <Focus
        focus={focus}
        moved={look !== AS_IS}
        onFocus={(next) => {
          setFocus(next)
          setLook(AS_IS)
        }}
      />
      {touch && <OneView only={only} onOnly={setOnly} />}
      {touch && <NudgePad view={only} />}
      <SectionPanel scale={scale} step={step} />
      <div ref={area} className="min-h-0 flex-1 overflow-hidden">
        {(touch ? [only] : (['plan', 'side'] as const)).map((view) => (
          <div key={view}>
            {!touch && view === 'side' && (
              <div className="relative">
                <Rule document={document} scale={scale} unit={unit} />
                <CutMarker scale={scale} />
              </div>
            )}
            <Drawing
              view={view}
              scale={scale}
              shapes={analysis.shapes.length ? analysis.shapes : committed.shapes}
              analysis={analysis}
              flags={shownFlags}
              step={step}
              onLook={onLook}
              picks={picks}
            />
            {touch && <Rule document={document} scale={scale} unit={unit} />}
          </div>
        ))}
      </div>
    </div>
  )
}

/** The blanks for the selected box's place, beside it in plan. */
function AtBox({ scale, shapes }: { scale: Scale; shapes: readonly Shape[] }) {
  const box = boxOf(useChoice((s) => s.selected))
  const placing = useChoice((s) => s.placing)
  const tray = shapes.find((s) => s.kind === 'tray' && s.path === `boxes/${box}`)
  if (!placing || !box || !tray) return null
  const [area] = boxAreas([tray], 'plan', scale)
  if (!area) return null
  const left = area.x0 > BLANKS_PX ? area.x0 - BLANKS_PX : area.x1 + 30
  const top = Math.max(44, Math.min(area.y0, scale.planHeight - 150))
  return (
    <PlaceBlanks
      key={box}
      id={box}
      at={{ left: Math.max(8, Math.min(left, scale.width - BLANKS_PX)), top }}
    />
  )
}

function firstSpace({ boxes, bays }: Document, box: string | null): string {
  const bay = (box && boxes[box]?.bay) || Object.keys(bays)[0]
  return bay && bay in bays ? `bays/${bay}` : 'car'
}

const VIEWS = [
  ['plan', 'plan'],
  ['side', 'from the side'],
] as const

/** On a small screen one view at a time. */
function OneView({ only, onOnly }: { only: ViewName; onOnly: (view: ViewName) => void }) {
  return (
    <div className="absolute right-2 bottom-9 z-10">
      <OneOf label="View" value={only} options={VIEWS} onChange={(v) => onOnly(v as ViewName)} />
    </div>
  )
}

function Focus({
  focus,
  moved,
  onFocus,
}: {
  focus: string
  moved: boolean
  onFocus: (focus: string) => void
}) {
  const bays = Object.entries(useDocument().bays)
  const choices = [['car', 'whole car'], ...bays.map(([id, bay]) => [`bays/${id}`, bay.name])]
  if (bays.length === 0) return null
  return (
    <div
      className="absolute top-1 right-2 z-10 flex items-center gap-1 text-sm"
      role="group"
      aria-label="What the views show"
    >
      <CutButton />
      {choices.map(([key = '', words]) => (
        <button
          key={key}
          type="button"
          aria-pressed={focus === key && !moved}
          onClick={() => onFocus(key)}
          className={`min-h-7 rounded border px-2 ${focus === key && !moved ? 'border-blue bg-blue font-semibold text-white' : 'border-edge bg-sheet'}`}
        >
          {words}
        </button>
      ))}
    </div>
  )
}

/** Cuts the car through the middle of what is selected, else of its first box. */
function CutButton() {
  const { aft, set } = useCut()
  const { shapes } = useLoaded().analysis
  const selected = useChoice((s) => s.selected)
  const { wheelbase_mm } = useDocument().vehicle
  function cut() {
    const first = shapes.find((s) => s.owner.startsWith('boxes/'))?.owner
    const path = boxOf(selected) ? `boxes/${boxOf(selected)}` : (selected ?? first)
    const middles = shapes.filter((s) => s.path === path || s.owner === path).map(middleOf)
    const middle = middles[0]?.at ?? wheelbase_mm / 2
    // through a module where there is one, not through the gap between two
    const modules = middles
      .filter((m) => m.kind === 'module')
      .sort((a, b) => Math.abs(a.at - middle) - Math.abs(b.at - middle))
    set(modules[0]?.at ?? middle)
  }
  return (
    <button
      type="button"
      aria-pressed={aft !== null}
      onClick={() => (aft === null ? cut() : set(null))}
      className={`min-h-7 rounded border px-2 ${aft !== null ? 'border-ink bg-ink font-semibold text-white' : 'border-edge bg-sheet'}`}
    >
      section
    </button>
  )
}

function middleOf({ kind, plan }: Shape) {
  const afts = plan.map(([a = 0]) => a)
  return { kind, at: (Math.min(...afts) + Math.max(...afts)) / 2 }
}

/** Gaps worth a flag: the chosen finding; else the worst of the selected box and everything foul or tight. */
function useFlags(analysis: Analysis, wanted: boolean): Finding[] {
  const finding = useChoice((s) => s.finding)
  const selected = useChoice((s) => s.selected)
  return useMemo(() => {
    if (!wanted) return []
    const gaps = analysis.findings.filter((f) => f.code === 'gap' && f.points_mm.length === 2)
    const chosen = gaps.filter((f) => f.id === finding)
    if (chosen.length) return chosen
    const near = gaps.filter((f) => selected && f.subjects.includes(selected)).slice(0, 3)
    const bad = gaps.filter((f) => f.state === 'foul' || f.state === 'tight')
    return [...new Set([...near, ...bad])].slice(0, MOST_FLAGS)
  }, [analysis, finding, selected, wanted])
}

function Drawing({
  view,
  scale,
  shapes,
  analysis,
  flags,
  step,
  onLook,
  picks,
}: {
  view: ViewName
  scale: Scale
  shapes: readonly Shape[]
  analysis: Analysis
  flags: Finding[]
  step: number
  onLook: LookBy
  picks: boolean
}) {
  const document = useDocument()
  const units = useUnits('place')
  const patterns = useId()
  const selected = useChoice((s) => s.selected)
  const chosen = useChoice((s) => s.finding)
  const choose = useChoice((s) => s.choose)
  const moved = useChoice((s) => s.offset?.path)
  const finding = useMemo(() => analysis.findings.find((f) => f.id === chosen), [analysis, chosen])
  const spoken = useMemo(() => (finding?.code.startsWith('gap') ? finding.subjects : NOTHING), [finding])
  const weights = useMemo(
    () =>
      Object.fromEntries(
        Object.entries(analysis.boxes).map(([id, b]) => [id, `${b.name} ${Math.round(b.full_kg)} kg`]),
      ),
    [analysis.boxes],
  )
  const still = useMemo(() => shapes.filter((s) => s.owner !== moved), [shapes, moved])
  const moving = useMemo(() => shapes.filter((s) => moved && s.owner === moved), [shapes, moved])
  const areas = useMemo(() => boxAreas(shapes, view, scale), [shapes, view, scale])
  const placed = useMemo(
    () => arrangeFlags(flags, view, scale, units, areas.map(withGrips)),
    [flags, view, scale, units, areas],
  )
  const reserved = useMemo(
    () => [
      ...areas,
      ...placed.map(areaOf),
      ...balanceArea(analysis, view, scale),
      ...pointAreas(document, view, scale),
      ...(view === 'plan' ? [{ x0: scale.width - LOOKS_PX, x1: scale.width, y0: 0, y1: 36 }] : []),
    ],
    [areas, placed, analysis, document, view, scale],
  )
  const chooseFlag = useCallback((f: Finding) => choose(f.id, f.subjects[0] ?? null), [choose])
  const back = useMemo(
    () => (
      <>
        <Patterns id={patterns} />
        <Grid scale={scale} view={view} />
        <Car vehicle={document.vehicle} scale={scale} view={view} />
        <Surroundings
          shapes={shapes}
          view={view}
          scale={scale}
          selected={selected}
          patterns={patterns}
          spoken={spoken}
        />
        <Boxes shapes={still} view={view} scale={scale} selected={selected} spoken={spoken} />
      </>
    ),
    [document.vehicle, patterns, scale, selected, shapes, spoken, still, view],
  )
  const inHand = moved && (
    <Shifted path={moved} view={view} scale={scale}>
      <Boxes shapes={moving} view={view} scale={scale} selected={selected} spoken={spoken} />
    </Shifted>
  )
  return (
    <View {...{ view, scale, shapes, step, back, inHand, onLook, picks }}>
      <CutDashes scale={scale} tall={tallOf(view, scale)} />
      <HardPoints document={document} view={view} scale={scale} selected={selected} />
      <Balance document={document} analysis={analysis} scale={scale} view={view} unit={units.length} />
      <Names
        shapes={moved ? still : shapes}
        {...{ view, scale, selected, spoken }}
        weights={weights}
        reserved={reserved}
      />
      <Flags placed={placed} units={units} onChoose={chooseFlag} />
      <Bar scale={scale} view={view} unit={units.length} />
      <Edges view={view} scale={scale} />
    </View>
  )
}

const NOTHING: string[] = []
const GRIP_PX = 22
const LOOKS_PX = 420 // the row of what is looked at, over the plan's corner
const BLANKS_PX = 370

/** A box with room for the grips round it. */
function withGrips({ x0, x1, y0, y1 }: Area): Area {
  return { x0: x0 - GRIP_PX, x1: x1 + GRIP_PX, y0: y0 - GRIP_PX, y1 }
}

function Grid({ scale, view }: { scale: Scale; view: ViewName }) {
  const lines: number[] = []
  for (let n = Math.ceil(scale.aft(0) / 100); n * 100 < scale.aft(scale.width); n += 1) lines.push(n * 100)
  const tall = tallOf(view, scale)
  return (
    <path
      d={lines.map((aft) => `M${scale.x(aft).toFixed(1)},0 V${tall}`).join('')}
      stroke="#e6e0d3"
      strokeWidth={0.8}
    />
  )
}

const BARS_MM = { mm: [1000, 500, 200, 100, 50], in: [1016, 508, 254, 101.6, 50.8] } // 40", 20", 10", 4", 2"

/** A length bar, never a printed ratio. */
function Bar({ scale, view, unit }: { scale: Scale; view: ViewName; unit: LengthUnit }) {
  if (view === 'plan') return null
  const longs = BARS_MM[unit]
  const long = longs.find((l) => l * scale.k <= 110) ?? longs.at(-1) ?? 50
  const [x, y] = [Math.max(scale.width * 0.26, 60), scale.z(0) - 12]
  return (
    <g>
      <path
        d={`M${x},${y} h${long * scale.k} m0,-5 v10 M${x},${y - 5} v10`}
        stroke="var(--color-ink)"
        strokeWidth={2}
        fill="none"
      />
      <text
        x={x + long * scale.k + 8}
        y={y + 4}
        fontSize={12}
        stroke="var(--color-paper)"
        strokeWidth={4}
        paintOrder="stroke"
      >
        {length(long, unit)}
        {unit === 'mm' && ' mm'}
      </text>
    </g>
  )
}

function Edges({ view, scale }: { view: ViewName; scale: Scale }): ReactNode {
  const style = { fontSize: 12.5, fontWeight: 700, fill: 'var(--color-soft)', letterSpacing: '0.12em' }
  if (view === 'side')
    return (
      <text x={8} y={17} {...style}>
        SIDE{' '}
        <tspan fontWeight={450} letterSpacing="0">
          seen from the left
        </tspan>
      </text>
    )
  return (
    <g>
      <text x={8} y={16} {...style}>
        PLAN RIGHT
      </text>
      <text x={8} y={scale.planHeight - 6} {...style}>
        LEFT
      </text>
      <text transform={`translate(15,${scale.y(0)}) rotate(-90)`} textAnchor="middle" {...style}>
        NOSE
      </text>
    </g>
  )
}
