import { describe, expect, it } from 'vitest'

import { AS_IS, closer, looked, makeScale, spotOf, tallOf, type ViewName } from './scale'

const CAR = { aft: [-700, 3500], right: [-800, 800], up: [0, 1250] } as Parameters<typeof makeScale>[0]

describe.each([
  ['both views', undefined],
  ['plan alone', 'plan'],
  ['side alone', 'side'],
] as [string, ViewName | undefined][])('a scale of %s', (_, only) => {
  const scale = makeScale(CAR, 900, 620, only)
  const views = only ? [only] : (['plan', 'side'] as const)
  it('gives back the place that a spot was drawn from', () => {
    for (const [aft, right, up] of [
      [0, 0, 0],
      [2480, -655, 540],
    ] as [number, number, number][]) {
      expect(scale.aft(scale.x(aft))).toBeCloseTo(aft, 9)
      if (only !== 'side') expect(scale.right(scale.y(right))).toBeCloseTo(right, 9)
      if (only !== 'plan') expect(scale.up(scale.z(up))).toBeCloseTo(up, 9)
    }
  })
  it('draws the whole window inside its views, right of the car and up upward', () => {
    for (const view of views)
      for (const corner of [
        [CAR.aft[0], CAR.right[0], CAR.up[0]],
        [CAR.aft[1], CAR.right[1], CAR.up[1]],
      ] as [number, number, number][]) {
        const [x, y] = spotOf(corner, view, scale)
        expect(x).toBeGreaterThan(0)
        expect(x).toBeLessThan(900)
        expect(y).toBeGreaterThan(0)
        expect(y).toBeLessThan(tallOf(view, scale))
      }
    expect(scale.y(100)).toBeLessThan(scale.y(-100))
    expect(scale.z(100)).toBeLessThan(scale.z(0))
  })
  it('is one scale: a millimetre is as long along as across', () => {
    expect(scale.x(1) - scale.x(0)).toBeCloseTo(scale.k, 9)
    expect(scale.y(0) - scale.y(1)).toBeCloseTo(scale.k, 9)
    expect(scale.z(0) - scale.z(1)).toBeCloseTo(scale.k, 9)
  })
})

describe('looking closer', () => {
  it('keeps the spot under the hand where it is', () => {
    const [before, spot] = [looked(CAR, AS_IS), { aft: 2600, right: -300 }]
    const after = looked(CAR, closer(AS_IS, 2.5, spot, CAR))
    const share = ([low, high]: [number, number], at: number) => (at - low) / (high - low)
    expect(share(after.aft, spot.aft)).toBeCloseTo(share(before.aft, spot.aft), 9)
    expect(share(after.right, spot.right)).toBeCloseTo(share(before.right, spot.right), 9)
    expect(after.aft[1] - after.aft[0]).toBeCloseTo((CAR.aft[1] - CAR.aft[0]) / 2.5, 9)
  })
  it('goes no closer than twelve times and no further than twice', () => {
    expect(closer(AS_IS, 100, {}, CAR).zoom).toBe(12)
    expect(closer(AS_IS, 0.01, {}, CAR).zoom).toBe(0.5)
  })
})
