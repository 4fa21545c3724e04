import { describe, expect, it } from 'vitest'

import { freeOf, goesThrough, strokesOf } from './naming'

const AREA = { x0: 10, x1: 30, y0: 10, y1: 20 }

describe('a stroke through an area', () => {
  it.each([
    ['level through it', [0, 15], [40, 15], true],
    ['upright through it', [20, 0], [20, 40], true],
    ['slanting over a corner', [5, 16], [16, 5], true],
    ['slanting past a corner', [5, 14], [14, 5], false],
    ['inside it', [12, 12], [28, 18], true],
    ['along its edge', [0, 10], [40, 10], false],
    ['that ends before it', [0, 15], [9, 15], false],
    ['beyond it', [31, 0], [31, 40], false],
  ] as const)('%s', (_, from, to, through) => {
    expect(goesThrough([from, to], AREA)).toBe(through)
    expect(goesThrough([to, from], AREA)).toBe(through)
  })
})

describe('the spot of a name', () => {
  const low = { x0: 10, x1: 30, y0: 40, y1: 50 }
  const line = strokesOf([
    [0, 15],
    [100, 15],
    [100, 90],
    [0, 90],
  ])
  it('leaves a line for the next spot, and a taken one always', () => {
    expect(freeOf([AREA, low], [], line)).toBe(low)
    expect(freeOf([AREA, low], [low], line)).toBe(AREA)
    expect(freeOf([AREA], [AREA], [])).toBeNull()
  })
})
