import { expect, it } from 'vitest'

import {
  AT_REST,
  cancelled,
  type Effect,
  type Hand,
  type Hold,
  lifted,
  moved,
  pressed,
  STILL_PX,
} from './hand'

const BOX: Hold = { moves: 'boxes/tank', ways: [1, 1, 0], finger: null }
const touch = (x: number, ms = 0, id = 1) => ({ id, x, y: 0, ms })

/** All that follows from a run of steps. */
function run(...steps: ((hand: Hand) => readonly [Hand, ...Effect[]])[]): Effect[] {
  let hand = AT_REST
  return steps.flatMap((step) => {
    const [next, ...effects] = step(hand)
    hand = next
    return effects
  })
}
const press =
  (hold: Hold, x = 0, ms = 0, id = 1) =>
  (h: Hand) =>
    pressed(h, touch(x, ms, id), hold)
const move =
  (x: number, ms = 0, id = 1) =>
  (h: Hand) =>
    moved(h, touch(x, ms, id))
const lift =
  (x: number, id = 1) =>
  (h: Hand) =>
    lifted(h, touch(x, 0, id))
const did = (effects: Effect[]) => effects.map((e) => e.do)

it('a press that stays where it is chooses, however it trembles', () => {
  expect(did(run(press(BOX), move(STILL_PX - 1), lift(1)))).toEqual(['choose'])
})

it('a drag takes what is under it once, follows from where it was pressed, and is released', () => {
  const effects = run(press(BOX, 10), move(20), move(33), lift(33))
  expect(did(effects)).toEqual(['take', 'follow', 'follow', 'release'])
  expect(effects[2]).toMatchObject({ moves: 'boxes/tank', by: { x: 23, y: 0 } })
})

it('beside everything a drag moves the view, step by step', () => {
  const effects = run(press({ ...BOX, moves: null }), move(10), move(25), lift(25))
  expect(effects).toEqual([
    { do: 'aside', by: { x: 10, y: 0 } },
    { do: 'aside', by: { x: 15, y: 0 } },
  ])
})

it.each([
  [true, 299, 'aside'],
  [true, 300, 'take'],
  [false, 900, 'aside'],
])('a finger drags only what is selected (%s), after resting on it (%i ms)', (onIt, ms, first) => {
  expect(did(run(press({ ...BOX, finger: { onIt } }), move(20, ms)))[0]).toBe(first)
})

it('a second finger ends a drag; two only zoom, by how far they go apart, and choose nothing', () => {
  const effects = run(
    press(BOX),
    move(20),
    press(BOX, 120, 0, 2),
    move(220, 0, 2),
    lift(220, 2),
    move(40),
    lift(40),
  )
  expect(did(effects)).toEqual(['take', 'follow', 'cancel', 'closer'])
  expect(effects[3]).toEqual({ do: 'closer', factor: 2, about: { x: 120, y: 0 } })
})

it('what was cancelled follows no more', () => {
  expect(did(run(press(BOX), move(20), () => cancelled(), move(60), lift(60)))).toEqual([
    'take',
    'follow',
    'cancel',
  ])
})
