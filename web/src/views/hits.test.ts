import { expect, it } from 'vitest'

import type { Shape } from '../design/types'
import { hitsAt } from './hits'

type Rectangle = [number, number, number, number]
const ring = ([a0, b0, a1, b1]: Rectangle) =>
  [
    [a0, b0],
    [a1, b0],
    [a1, b1],
    [a0, b1],
  ] as [number, number][]

function shape(path: string, kind: string, at: Rectangle, up_mm: number, label = ''): Shape {
  return { path, kind, name: path, plan: ring(at), side: ring(at), up_mm, label, gap_class: '', owner: '' }
}

const PILE = [
  shape('items/axle', 'item', [0, 0, 400, 400], 300),
  shape('boxes/tank', 'tray', [100, 100, 300, 300], 500),
  shape('boxes/tank', 'lid', [95, 95, 305, 305], 503),
  shape('boxes/tank/blocks/a', 'module', [110, 110, 190, 290], 480, '7'),
  shape('keepouts/crush', 'crush', [0, 0, 900, 900], 900),
  shape('bays/tank', 'bay', [0, 0, 900, 900], 900),
]
const paths = (view: 'plan' | 'side', a: number, b: number) => hitsAt(PILE, view, a, b).map((h) => h.path)

it('in plan what is higher is met first, a box and its lid once, a soft space last', () => {
  expect(paths('plan', 150, 150)).toEqual([
    'boxes/tank',
    'boxes/tank/blocks/a#7',
    'items/axle',
    'keepouts/crush',
  ])
})

it('from the side a box comes before what is in it and that before the rest', () => {
  expect(paths('side', 150, 150)[0]).toBe('boxes/tank')
  expect(paths('side', 350, 350)).toEqual(['items/axle', 'keepouts/crush'])
})

it('a press beside everything meets nothing, and a space is no thing', () => {
  expect(paths('plan', 950, 950)).toEqual([])
  expect(paths('plan', 600, 600)).toEqual(['keepouts/crush'])
})
