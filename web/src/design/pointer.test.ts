import { expect, it } from 'vitest'

import { at, freeId, patched, pointer } from './pointer'
import type { Document } from './types'

const CAR = {
  boxes: { tank: { pose: { at_mm: [1, 2, 3] } } },
  readings: { '/bays/a~b': { text: '5' } },
} as unknown as Document

it('a path names its figure whatever signs are in it', () => {
  const path = pointer('readings', '/bays/a~b')
  expect(path).toBe('/readings/~1bays~1a~0b')
  expect(at(CAR, path)).toEqual({ text: '5' })
  expect(at(CAR, '/boxes/nobody/pose')).toBeUndefined()
})

it('an accepted patch gives the document after it and leaves the one before alone', () => {
  const after = patched(CAR, [
    { op: 'test', path: '/boxes/tank/pose/at_mm/0', value: 1 },
    { op: 'replace', path: '/boxes/tank/pose/at_mm/0', value: 9 },
    { op: 'remove', path: '/readings/~1bays~1a~0b' },
    { op: 'add', path: '/boxes/tank/name', value: 'Tank' },
  ])
  expect(after).toEqual({ boxes: { tank: { name: 'Tank', pose: { at_mm: [9, 2, 3] } } }, readings: {} })
  expect(at(CAR, '/boxes/tank/pose/at_mm/0')).toBe(1)
})

it('a new id can be read, and is nobody’s yet', () => {
  expect(freeId('Tank box, left!', {})).toBe('tank-box-left')
  expect(freeId('Tank box', { 'tank-box': 1, 'tank-box-2': 1 })).toBe('tank-box-3')
  expect(freeId('…', {})).toBe('thing')
})
