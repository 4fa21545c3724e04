import { expect, it } from 'vitest'

import type { Finding } from '../design/types'
import { arrangeFlags, areaOf, meet, viewOf } from './Flags'
import { makeScale } from './scale'

const CAR = { aft: [-700, 3500], right: [-800, 800], up: [0, 1250] } as Parameters<typeof makeScale>[0]
const SCALE = makeScale(CAR, 1000, 700)
const UNITS = { length: 'mm', mass: 'kg' } as const

function flag(n: number, here: number[], there: number[]): Finding {
  return {
    id: `f${n}`,
    value: 12.3,
    label: `thing ${n}`,
    state: 'tight',
    points_mm: [here, there],
  } as Partial<Finding> as Finding
}

it('a gap upward is seen from the side, all others in plan', () => {
  expect(viewOf(flag(1, [0, 0, 0], [0, 0, 30]))).toBe('side')
  expect(viewOf(flag(2, [0, 0, 0], [30, 0, 0]))).toBe('plan')
  expect(viewOf(flag(3, [0, 0, 0], [0, 30, 5]))).toBe('plan')
})

it('flags of one spot cover neither each other nor, where there is room, a box, and stay in the view', () => {
  const crowd = Array.from({ length: 7 }, (_, n) => flag(n, [1500, 10 * n, 300], [1520, 10 * n, 300]))
  const box = { x0: SCALE.x(1400), x1: SCALE.x(1600), y0: SCALE.y(100), y1: SCALE.y(-60) }
  const placed = arrangeFlags(crowd, 'plan', SCALE, UNITS, [box])
  expect(placed).toHaveLength(7)
  placed.forEach((one, n) => {
    const area = areaOf(one)
    expect(placed.slice(n + 1).some((other) => meet(area, areaOf(other)))).toBe(false)
    expect(meet(area, box)).toBe(false)
    expect(area.x0 > 0 && area.x1 < 1000 && area.y0 > 0 && area.y1 < SCALE.planHeight).toBe(true)
  })
  expect(arrangeFlags(crowd, 'side', SCALE, UNITS, [])).toEqual([])
})
