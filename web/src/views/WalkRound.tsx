/** The same assembly to walk round: the same selection, cut where the section is cut, and what is foul shown in it. */
import { Canvas, type ThreeEvent, useThree } from '@react-three/fiber'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useMemo, useState } from 'react'
import {
  BufferGeometry,
  DoubleSide,
  EdgesGeometry,
  Float32BufferAttribute,
  Plane,
  type PerspectiveCamera,
  Spherical,
  Vector3,
} from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'

import { boxOf, useChoice } from '../design/choice'
import { useAnalysis, useDocument, useLoaded } from '../design/live'
import { bodiesQuery } from '../design/queries'
import type { Body } from '../design/types'
import { gap } from '../ui/format'
import { Link, Teach } from '../ui/parts'
import { Slide } from '../ui/Slide'
import { useUnits } from '../ui/units'
import { useCut } from './cut'

const COLOURS: Record<string, string> = {
  metal: '#b0622a',
  module: '#3f6b66',
  bracket: '#8d8778',
  item: '#a9a493',
  keepout: '#c9b7a6',
  member: '#8c9196',
}
const [BLUE, FOUL, PALE] = ['#27378c', '#b3261e', '#d9a29c']

/** ``only``: of this box alone. */
export function WalkRound({ only }: { only?: string }) {
  const { project, revision } = useLoaded()
  const { data, error } = useQuery(bodiesQuery(project, revision))
  const { vehicle, boxes } = useDocument()
  const units = useUnits('place')
  const finding = useChosenFinding()
  const selected = useChoice((s) => s.selected)
  const [apart, setApart] = useState(0)
  const box = only ?? boxOf(selected)
  const name = box && boxes[box]?.name
  if (error) return <Teach>{error.message}</Teach>
  if (!data) return <Teach>One moment …</Teach>
  return (
    <div className="relative flex min-h-0 min-w-0 flex-1 flex-col">
      <div
        className="min-h-0 flex-1"
        role="img"
        aria-label={`The ${only ? name : 'car'} to walk round; drag to turn, wheel to come closer`}
      >
        <Canvas
          camera={{ fov: 38, near: 20, far: 30000 }}
          gl={{ localClippingEnabled: true }}
          frameloop="demand"
        >
          <Scene
            bodies={only ? data.filter((body) => body.owner === `boxes/${only}`) : data}
            alone={only !== undefined}
            wheelbase={vehicle.wheelbase_mm}
            apart={{ box: `boxes/${box}`, share: apart / 100 }}
          />
        </Canvas>
      </div>
      <footer className="flex items-center gap-4 border-t border-hair bg-sheet px-3 py-1.5 text-sm">
        <span className="min-w-40 flex-1">
          {finding && !only
            ? `${finding.label}: ${gap(finding.value ?? 0, units.length)}, needs ${gap(finding.limit ?? 0, units.length, 'up')}`
            : 'Drag turns it, with Shift it moves, the wheel comes closer. A press selects.'}
        </span>
        {name && (
          <label className="flex items-center gap-2">
            take the {name} apart
            <Slide from={0} to={100} step={5} value={apart} onChange={setApart} className="w-40" />
          </label>
        )}
        {!only && <CutAway to={Math.round(vehicle.wheelbase_mm + 1000)} />}
      </footer>
    </div>
  )
}

function CutAway({ to }: { to: number }) {
  const { aft, set } = useCut()
  return (
    <>
      <label className="flex items-center gap-2">
        cut away before
        <Slide
          from={-700}
          to={to}
          step={10}
          value={aft ?? -700}
          onChange={(at) => set(at <= -700 ? null : at)}
          className="w-56"
        />
        <span className="w-20 text-right font-semibold">{aft === null ? 'nothing' : `${aft} aft`}</span>
      </label>
      <Link onClick={() => set(null)}>whole</Link>
    </>
  )
}

function useChosenFinding() {
  const id = useChoice((s) => s.finding)
  return useAnalysis().findings.find((f) => f.id === id && f.code.startsWith('gap'))
}

/** Vehicle axes to the picture's: aft to the right, up upward, right of the centreline away from who stands at the left. */
const toScene = ([x, y, z]: readonly number[]): [number, number, number] => [x ?? 0, z ?? 0, -(y ?? 0)]

interface Apart {
  box: string
  share: number
}

/** The middle of what is shown, together and taken apart, in the scene's axes, and how far off one sees all of it. */
function seenWhole(bodies: Body[]): { middle: [number, number, number]; far: number } {
  const points = bodies.flatMap(({ points, apart_mm }) => [
    ...points,
    ...points.map((p) => p.map((v, i) => v + (apart_mm[i] ?? 0))),
  ])
  const ends = [0, 1, 2].map((i) => {
    const row = points.map((p) => p[i] ?? 0)
    return [
      row.reduce((a, b) => Math.min(a, b), Infinity),
      row.reduce((a, b) => Math.max(a, b), -Infinity),
    ] as const
  })
  const longest = Math.max(...ends.map(([low, high]) => high - low))
  return { middle: toScene(ends.map(([low, high]) => (low + high) / 2)), far: 2.1 * longest }
}

function Scene({
  bodies,
  wheelbase,
  apart,
  alone,
}: {
  bodies: Body[]
  wheelbase: number
  apart: Apart
  /** One box by itself, to be looked at as it is made: nothing is said of what is round it. */
  alone: boolean
}) {
  const aft = useCut((s) => s.aft)
  const invalidate = useThree((s) => s.invalidate)
  const gl = useThree((s) => s.gl)
  const selected = useChoice((s) => s.selected)
  const finding = useChosenFinding()
  const findings = useAnalysis().findings
  const planes = useMemo(
    () => (aft === null || alone ? [] : [new Plane(new Vector3(1, 0, 0), -aft)]),
    [aft, alone],
  )
  const foul = useMemo(
    () =>
      new Set(
        findings.filter((f) => f.state === 'foul' && f.code.startsWith('gap')).flatMap((f) => f.subjects),
      ),
    [findings],
  )
  useEffect(() => {
    gl.localClippingEnabled = true
    invalidate()
  }, [gl, invalidate, planes, selected, finding, bodies, apart.share])
  return (
    <>
      {alone ? <Feet {...seenWhole(bodies)} /> : <Feet middle={[wheelbase / 2, 400, 0]} far={4300} />}
      <ambientLight intensity={1.7} />
      <directionalLight position={[-2000, 4000, 3000]} intensity={1.6} />
      <directionalLight position={[4000, 2500, -3000]} intensity={0.7} />
      {!alone && <Ground />}
      {bodies.map((body, i) => (
        <Solid
          key={i}
          body={body}
          off={body.owner === apart.box ? apart.share : 0}
          planes={planes}
          chosen={!alone && isChosen(body, selected)}
          foul={!alone && foul.has(body.owner || body.path)}
          spoken={alone ? undefined : finding?.subjects}
        />
      ))}
      {!alone &&
        (finding ? [finding] : findings.filter((f) => f.state === 'foul' && f.code === 'gap')).map((f) => (
          <GapLine key={f.id} points={f.points_mm} />
        ))}
    </>
  )
}

function isChosen(body: Body, selected: string | null): boolean {
  if (!selected) return false
  return body.path === selected || body.owner === selected
}

function Solid({
  body,
  off,
  planes,
  chosen,
  foul,
  spoken,
}: {
  body: Body
  /** How far it is taken off where it belongs: a share. */
  off: number
  planes: Plane[]
  chosen: boolean
  foul: boolean
  spoken: readonly string[] | undefined
}) {
  const select = useChoice((s) => s.select)
  const geometry = useMemo(() => {
    const made = new BufferGeometry()
    made.setAttribute(
      'position',
      new Float32BufferAttribute(
        body.points.flatMap((p) => toScene(p)),
        3,
      ),
    )
    made.setIndex(body.triangles.flatMap((t) => [...t]))
    const flat = made.toNonIndexed()
    flat.computeVertexNormals()
    return flat
  }, [body])
  useEffect(() => () => geometry.dispose(), [geometry])
  const soft = body.gap_class === 'crush' || body.kind === 'keepout'
  const said = spoken ? spoken.some((p) => p === body.path || p === body.owner) : true
  const colour = chosen ? BLUE : foul && body.kind !== 'module' ? PALE : (COLOURS[body.kind] ?? '#a9a493')
  const see = soft ? 0.12 : body.kind === 'metal' ? 0.26 : 0.94
  function press(event: ThreeEvent<MouseEvent>) {
    if (event.delta > 5 || planes.some((p) => p.distanceToPoint(event.point) < 0)) return
    event.stopPropagation()
    select(body.path, body.name)
  }
  return (
    <mesh
      geometry={geometry}
      position={toScene(body.apart_mm.map((v) => v * off))}
      onClick={press}
      renderOrder={soft ? 3 : body.kind === 'metal' ? 2 : 1}
    >
      <Scribed
        geometry={geometry}
        planes={planes}
        colour={chosen ? BLUE : foul ? FOUL : '#1c2430'}
        faint={!said || soft}
      />
      <meshLambertMaterial
        color={colour}
        transparent={see < 0.9 || !said}
        opacity={said ? see : see * 0.25}
        depthWrite={see > 0.9 && said}
        side={DoubleSide}
        clippingPlanes={planes}
      />
    </mesh>
  )
}

/** Edges like scribed lines. */
function Scribed({
  geometry,
  planes,
  colour,
  faint,
}: {
  geometry: BufferGeometry
  planes: Plane[]
  colour: string
  faint: boolean
}) {
  const edges = useMemo(() => new EdgesGeometry(geometry, 20), [geometry])
  useEffect(() => () => edges.dispose(), [edges])
  return (
    <lineSegments geometry={edges} raycast={() => null}>
      <lineBasicMaterial color={colour} transparent opacity={faint ? 0.25 : 0.85} clippingPlanes={planes} />
    </lineSegments>
  )
}

/** The car as it is marked out on the floor: outline, centreline, axle lines; and its wheels. */
function Ground() {
  const { vehicle } = useDocument()
  const { overall, wheelbase_mm: base, track_mm: track } = vehicle
  const tyre = overall?.tyre_radius_mm ?? 300
  const half = (overall?.width_mm ?? 1600) / 2
  const [fore, rear] = [-(overall?.overhang_front_mm ?? 600), base + (overall?.overhang_rear_mm ?? 800)]
  const lines = useMemo(() => {
    const ring = [
      [fore, -half * 0.7],
      [fore + 350, -half],
      [rear - 350, -half],
      [rear, -half * 0.7],
      [rear, half * 0.7],
      [rear - 350, half],
      [fore + 350, half],
      [fore, half * 0.7],
    ]
    const pairs = ring.flatMap((p, i) => [p, ring[(i + 1) % ring.length] ?? p])
    pairs.push([fore - 150, 0], [rear + 150, 0], [0, -half], [0, half], [base, -half], [base, half])
    const points = pairs.flatMap(([a = 0, r = 0]) => toScene([a, r, 0]))
    return new BufferGeometry().setAttribute('position', new Float32BufferAttribute(points, 3))
  }, [base, fore, half, rear])
  useEffect(() => () => lines.dispose(), [lines])
  const wheels = track
    ? [
        [0, track.front],
        [0, -track.front],
        [base, track.rear],
        [base, -track.rear],
      ].map(([a = 0, t = 0]) => [a, t / 2] as const)
    : []
  return (
    <>
      <lineSegments geometry={lines}>
        <lineBasicMaterial color="#6c7176" />
      </lineSegments>
      {wheels.map(([a, r]) => (
        <mesh
          key={`${a}${r}`}
          position={toScene([a, r, tyre])}
          rotation={[Math.PI / 2, 0, 0]}
          raycast={() => null}
        >
          <cylinderGeometry args={[tyre, tyre, 165, 40, 1, true]} />
          <meshLambertMaterial color="#8a857a" transparent opacity={0.5} side={DoubleSide} />
        </mesh>
      ))}
    </>
  )
}

function GapLine({ points }: { points: number[][] }) {
  const geometry = useMemo(
    () =>
      new BufferGeometry().setAttribute(
        'position',
        new Float32BufferAttribute(
          points.flatMap((p) => toScene(p)),
          3,
        ),
      ),
    [points],
  )
  useEffect(() => () => geometry.dispose(), [geometry])
  return (
    <>
      <lineSegments geometry={geometry} renderOrder={9}>
        <lineBasicMaterial color={FOUL} linewidth={3} depthTest={false} />
      </lineSegments>
      {points.map((p, i) => (
        <mesh key={i} position={toScene(p)} renderOrder={9}>
          <sphereGeometry args={[9, 12, 8]} />
          <meshBasicMaterial color={FOUL} depthTest={false} />
        </mesh>
      ))}
    </>
  )
}

const START = [1.08, -0.55] as const
const TURN = 0.1 // a press of an arrow
const NEARER = 0.9

/** Where one stands: a drag walks round, with Shift aside, the wheel or two fingers nearer. Keys do the same. */
function Feet({ middle, far }: { middle: [number, number, number]; far: number }) {
  const camera = useThree((s) => s.camera as PerspectiveCamera)
  const invalidate = useThree((s) => s.invalidate)
  const canvas = useThree((s) => s.gl.domElement)
  const [at] = useState(() => new Vector3(...middle))
  useEffect(() => {
    const steering = new OrbitControls(camera, canvas)
    steering.target.copy(at)
    camera.position.setFromSpherical(new Spherical(far, ...START)).add(at)
    steering.minDistance = 250
    steering.maxDistance = 14000
    steering.maxPolarAngle = 3 // from below too
    const look = () => invalidate()
    const press = (e: KeyboardEvent) => {
      const did = KEYS[e.key]
      if (!did) return
      e.preventDefault()
      did(steering)
    }
    canvas.tabIndex = 0
    steering.addEventListener('change', look)
    canvas.addEventListener('keydown', press)
    steering.update()
    return () => {
      canvas.removeEventListener('keydown', press)
      steering.dispose()
    }
  }, [at, camera, canvas, far, invalidate])
  return null
}

const KEYS: Record<string, (steering: OrbitControls) => void> = {
  ArrowLeft: (s) => s.rotateLeft(-TURN),
  ArrowRight: (s) => s.rotateLeft(TURN),
  ArrowUp: (s) => s.rotateUp(TURN),
  ArrowDown: (s) => s.rotateUp(-TURN),
  '+': (s) => s.dollyIn(NEARER),
  '-': (s) => s.dollyOut(NEARER),
}

export default WalkRound
