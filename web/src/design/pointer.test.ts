import { expect, it } from 'vitest'

import { at, freeId, isDone, named, patched, pointer } from './pointer'
import type { Document, Op } from './types'

const CAR = {
  boxes: { tank: { pose: { at_mm: [1, 2, 3] } } },
  readings: { '/bays/a~b': { text: '5' } },
} as object as Document

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

it('a patch is done where the document is as it would make it', () => {
  const move: Op = { op: 'replace', path: '/boxes/tank/pose/at_mm', value: [9, 2, 3] }
  const anew: Op[] = [
    { op: 'remove', path: '/boxes/tank' },
    { op: 'add', path: '/boxes/tank', value: { name: 'Tank', pose: { at_mm: [9, 2, 3] } } },
  ]
  expect([isDone(CAR, [move]), isDone(CAR, anew), isDone(CAR, [])]).toEqual([false, false, false])
  const after = patched(CAR, anew)
  expect([isDone(after, [move]), isDone(after, anew)]).toEqual([true, true])
  expect(isDone(after, [{ op: 'replace', path: '/boxes/other/name/first', value: 1 }])).toBe(false)
})

it('a path is told by its thing and what of it', () => {
  const document = { bays: { tank: { name: 'the tank', stations: {} } }, vehicle: {} } as object as Document
  expect(named(document, '/bays/tank/stations/a/floor_mm')).toBe('the tank: floor')
  expect(named(document, '/vehicle/wheelbase_mm')).toBe('wheelbase')
  expect(named(document, '/vehicle/track_mm/front')).toBe('track: front')
  expect(named(document, '/boxes/gone/pose/at_mm/0')).toBe('gone: at')
})
