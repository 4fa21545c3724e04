import { describe, expect, it } from 'vitest'

import {
  along,
  figure,
  gap,
  gapAndNeed,
  length,
  mass,
  massUp,
  newtons,
  place,
  sentence,
  inWords,
  utilisation,
  withCommas,
} from './format'
import vectors from './format.vectors.json'

const MM = { length: 'mm', mass: 'kg' } as const
const INCH = { length: 'in', mass: 'lb' } as const

describe('figures are written as the core writes them', () => {
  it.each(vectors.lengths)('$value mm in $unit, $round', ({ value, unit, round, text }) => {
    expect(length(value, unit as 'mm', round as 'near')).toBe(text)
  })
  it.each(vectors.masses)('$value kg in $unit', ({ value, unit, text }) => {
    expect(mass(value, unit as 'kg')).toBe(text)
  })
  it.each(vectors.places)('$value along $way in $unit', ({ value, way, unit, text }) => {
    expect(along(value, way as 'aft', unit as 'mm')).toBe(text)
  })
})

describe('rounding is toward less margin', () => {
  it('a gap down, a demand and a ± up, a use up', () => {
    expect(gap(10.49, 'mm')).toBe('10.4')
    expect(figure({ value: 10.41, unit: 'mm', round: 'up' }, MM)).toBe('10.5 mm')
    expect(massUp(3.61, 'kg')).toBe('3.7 kg')
    expect(massUp(1, 'lb')).toBe('2.3 lb')
    expect(utilisation(0.801)).toBe('0.81')
    expect([6634.2, -6634.2, 0].map(newtons)).toEqual(['6,635', '−6,635', '0'])
  })
  it('what is a tenth but for the rounding of a float stays that tenth', () => {
    expect(gap(0.1 + 0.2, 'mm')).toBe('0.3')
    expect(utilisation(0.1 + 0.7)).toBe('0.80')
  })
})

describe('a gap and its need in fractions', () => {
  it('are decimals where rounding would turn their order round', () => {
    expect(gapAndNeed(20, 20, 'in')).toEqual(['0.787"', '0.787"'])
    expect(gapAndNeed(20, 25, 'in')).toEqual(['25/32"', '1"']) // foul: their order is true
    expect(gapAndNeed(57.8, 15, 'in')).toEqual(['2 1/4"', '19/32"'])
    expect(gapAndNeed(20, 20, 'mm')).toEqual(['20.0', '20.0'])
  })
})

describe('a sentence', () => {
  const row = {
    message: 'Rear axle: {0} under its rating, ± {1}',
    figures: [
      { value: 2.61, unit: 'kg', round: 'down' },
      { value: 3.55, unit: 'kg', round: 'up' },
    ],
  } as Parameters<typeof sentence>[0]
  it('is written in the unit of its list, and its ± stays in one line', () => {
    expect(sentence(row, MM)).toBe('Rear axle: 2.6 kg under its rating, ±\u00a03.6\u00a0kg')
    expect(sentence(row, INCH)).toBe('Rear axle: 5.7 lb under its rating, ±\u00a07.9\u00a0lb')
  })
  it('keeps a slot it has no figure for', () => {
    expect(sentence({ message: 'at {3}', figures: [] }, MM)).toBe('at {3}')
  })
})

it('a place is said as the trade says it', () => {
  expect(place([840, -120, 310], 'mm')).toBe('840 aft, 120 L, 310 up')
  expect(place([-1840, 0, 310], 'mm')).toBe('1,840 fore, 0 R, 310 up')
  expect(withCommas('1234567.89')).toBe('1,234,567.89')
})

describe('a text that is too long', () => {
  it.each([
    ['axle at full bump', 17, 'axle at full bump'],
    ['axle at full bump', 11, 'axle at …'],
    ['anti-roll bar through its travel', 24, 'anti-roll bar through …'],
    ['anti-roll bar', 5, 'anti-roll …'],
    ['silencer', 4, 'silencer …'],
  ])('%s in %i letters ends at a word', (text, most, shown) => {
    expect(inWords(text, most)).toBe(shown)
  })
})
