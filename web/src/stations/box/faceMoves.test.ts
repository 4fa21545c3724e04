import { expect, test } from 'vitest'

import { movedTo } from './faceMoves'

// measured from the left and from the base: up in the drawing is away from the left, to its left away from the base
const ways = [
  [0, 1],
  [-1, 0],
] as const

test('it goes by whole millimetres along the ways of its edges', () => {
  expect(movedTo(ways, [95.4, 190], [-10.3, 4.2])).toEqual([99, 200])
})

test('the figure of a way that it does not go keeps its decimals', () => {
  expect(movedTo(ways, [95.4, 190], [-10, 0.3])).toEqual([95.4, 200])
})
