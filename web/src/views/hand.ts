/**
 * What the hand does in a view, as states: nothing, a press that may become a drag or a pan, two fingers. Each step tells what follows
 * from it; nothing is done here.
 */
export interface Spot {
  x: number
  y: number
}

/** A mouse button or a finger, at a place of the view, at a time. */
export interface Touch extends Spot {
  id: number
  ms: number
}

export interface Hold {
  /** What a drag moves: a box, or a block in one. */
  moves: string | null
  /** Along which of aft, right, up. */
  ways: readonly [number, number, number]
  /** Of a finger: whether the selected thing is under it. */
  finger: { onIt: boolean } | null
}

type State =
  | { does: 'nothing' | 'pinch' }
  | { does: 'press'; from: Touch; hold: Hold }
  | { does: 'pan' }
  | { does: 'drag'; from: Touch; moves: string; ways: Hold['ways'] }

export type Hand = State & { fingers: ReadonlyMap<number, Spot> }

export type Effect =
  | { do: 'take' | 'release'; moves: string }
  | { do: 'follow'; moves: string; ways: Hold['ways']; by: Spot }
  | { do: 'aside'; by: Spot }
  | { do: 'closer'; factor: number; about: Spot }
  | { do: 'choose'; at: Spot }
  | { do: 'cancel' }

type Step = readonly [Hand, ...Effect[]]

export const AT_REST: Hand = { does: 'nothing', fingers: new Map() }
export const STILL_PX = 6
/** A finger rests this long on the selected thing before it drags it. */
const HELD_MS = 300

/** A second finger ends what the first one did: two only zoom. */
export function pressed(hand: Hand, touch: Touch, hold: Hold): Step {
  const fingers = new Map(hand.fingers).set(touch.id, touch)
  if (fingers.size === 1) return [{ does: 'press', from: touch, hold, fingers }]
  const now: Hand = { does: 'pinch', fingers }
  return hand.does === 'drag' ? [now, { do: 'cancel' }] : [now]
}

export function moved(hand: Hand, touch: Touch): Step {
  const was = hand.fingers.get(touch.id)
  if (!was) return [hand]
  const now = { ...hand, fingers: new Map(hand.fingers).set(touch.id, touch) }
  if (now.fingers.size > 1) return [now, ...pinched(now, touch, was)]
  if (now.does === 'press') return begun(now, touch, was)
  if (now.does === 'pan') return [now, aside(touch, was)]
  if (now.does === 'drag') return [now, followed(now, touch)]
  return [now]
}

export function lifted(hand: Hand, touch: Touch): Step {
  const fingers = new Map(hand.fingers)
  fingers.delete(touch.id)
  const rest: Hand = { does: hand.does === 'pinch' && fingers.size ? 'pinch' : 'nothing', fingers }
  if (hand.does === 'drag') return [rest, { do: 'release', moves: hand.moves }]
  if (hand.does === 'press') return [rest, { do: 'choose', at: touch }]
  return [rest]
}

/** What is dragged goes back to where it was. */
export function cancelled(): Step {
  return [AT_REST, { do: 'cancel' }]
}

/** A press becomes a drag or a pan once it leaves its place. */
function begun(hand: Hand & { does: 'press' }, touch: Touch, was: Spot): Step {
  const { from, hold, fingers } = hand
  if (Math.hypot(touch.x - from.x, touch.y - from.y) < STILL_PX) return [hand]
  const waited = !hold.finger || (hold.finger.onIt && touch.ms - from.ms >= HELD_MS)
  if (hold.moves === null || !waited) return [{ does: 'pan', fingers }, aside(touch, was)]
  const drag = { does: 'drag' as const, from, moves: hold.moves, ways: hold.ways, fingers }
  return [drag, { do: 'take', moves: hold.moves }, followed(drag, touch)]
}

function followed({ from, moves, ways }: Hand & { does: 'drag' }, at: Spot): Effect {
  return { do: 'follow', moves, ways, by: { x: at.x - from.x, y: at.y - from.y } }
}

const aside = (at: Spot, was: Spot): Effect => ({ do: 'aside', by: { x: at.x - was.x, y: at.y - was.y } })

function pinched({ fingers }: Hand, touch: Touch, was: Spot): Effect[] {
  const other = [...fingers].find(([id]) => id !== touch.id)?.[1]
  if (!other) return []
  const apart = (p: Spot) => Math.max(Math.hypot(p.x - other.x, p.y - other.y), 1)
  const about = { x: (touch.x + other.x) / 2, y: (touch.y + other.y) / 2 }
  return [{ do: 'closer', factor: apart(touch) / apart(was), about }]
}
