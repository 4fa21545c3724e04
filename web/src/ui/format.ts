/** Figures as text. The core writes the vectors that this must give (format.vectors.json); nothing is computed here. */
import rules from '../design/rules.json'
import type { Figure, Finding, LengthUnit, MassUnit, WatchRow } from '../design/types'

export interface Units {
  length: LengthUnit
  mass: MassUnit
}

type Round = Figure['round']
const INCH_MM = 25.4
const DIVISION = 32

function steps(value: number, way: Round): number {
  const near = Math.round(value * 1e6) / 1e6
  if (way === 'down') return Math.floor(near)
  if (way === 'up') return Math.ceil(near)
  const low = Math.floor(near)
  const rest = near - low
  if (rest !== 0.5) return Math.round(near)
  return low % 2 === 0 ? low : low + 1 // halves go to the even neighbour, as in the core
}

/** `372`, `10.5`, `14 5/8"`. */
export function length(valueMm: number, unit: LengthUnit, way: Round = 'near'): string {
  if (unit === 'mm') {
    const text = (steps(valueMm * 10, way) / 10).toFixed(1).replace(/\.0$/, '')
    return text === '-0' ? '0' : text
  }
  const all = steps((valueMm / INCH_MM) * DIVISION, way)
  const sign = all < 0 ? '-' : ''
  const whole = Math.floor(Math.abs(all) / DIVISION)
  let part = Math.abs(all) % DIVISION
  if (part === 0) return whole ? `${sign}${whole}"` : '0"'
  let under = DIVISION
  while (part % 2 === 0) {
    part /= 2
    under /= 2
  }
  return whole ? `${sign}${whole} ${part}/${under}"` : `${sign}${part}/${under}"`
}

export function mass(valueKg: number, unit: MassUnit): string {
  return `${withCommas((unit === 'kg' ? valueKg : valueKg / rules.pound_kg).toFixed(1))} ${unit}`
}

/** A ±: rounded up, in the unit of what it stands beside. */
export function massUp(valueKg: number, unit: MassUnit): string {
  return figure({ value: valueKg, unit: 'kg', round: 'up' }, { length: 'mm', mass: unit })
}

/** A gap: always to a tenth of a millimetre, or to 1/32 inch. */
export function gap(valueMm: number, unit: LengthUnit, way: Round = 'down'): string {
  return unit === 'mm' ? (steps(valueMm * 10, way) / 10).toFixed(1) : length(valueMm, 'in', way)
}

/** A use = demand / capacity: up, to two places. */
export function utilisation(value: number): string {
  return (steps(value * 100, 'up') / 100).toFixed(2)
}

/** So much of a text as goes into that many letters, in whole words; its first word at least. */
export function inWords(text: string, most: number): string {
  if (text.length <= most) return text
  const end = text.lastIndexOf(' ', most - 2)
  const [first = ''] = text.split(' ')
  return `${end > 0 ? text.slice(0, end) : first} …`
}

export function withCommas(text: string): string {
  const [whole = '', rest] = text.split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, ',')
  return rest === undefined ? grouped : `${grouped}.${rest}`
}

/** A force, which is a demand whichever way it goes: rounded away from zero. */
export function newtons(n: number): string {
  return `${n < 0 ? '−' : ''}${withCommas(String(Math.ceil(Math.abs(n))))}`
}

export function figure({ value, unit, round }: Figure, units: Units): string {
  if (unit === 'mm') return units.length === 'mm' ? `${gap(value, 'mm', round)} mm` : gap(value, 'in', round)
  if (unit === 'kg') {
    const shown = units.mass === 'kg' ? value : value / rules.pound_kg
    return `${withCommas((steps(shown * 10, round) / 10).toFixed(1))} ${units.mass}`
  }
  if (unit === 'use') return utilisation(value)
  if (unit === 'N') return `${withCommas(String(steps(value, round)))} N`
  const text = (steps(value * 10, round) / 10).toFixed(1)
  return unit ? `${text} ${unit}` : text
}

/** A gap and its need. In fractions one goes down and the other up: where that turned their order round, both are decimals. */
export function gapAndNeed(has: number, needs: number, unit: LengthUnit): [string, string] {
  const turned = unit === 'in' && has >= needs && gap(has, unit) !== gap(needs, unit, 'up')
  const near = turned && steps((has / INCH_MM) * DIVISION, 'down') < steps((needs / INCH_MM) * DIVISION, 'up')
  if (near) return [has, needs].map((mm) => `${(mm / INCH_MM).toFixed(3)}"`) as [string, string]
  return [gap(has, unit), gap(needs, unit, 'up')]
}

export function sentence(row: Pick<Finding | WatchRow, 'message' | 'figures'>, units: Units): string {
  const [has, needs] = row.figures
  const isGap = has?.unit === 'mm' && has.round === 'down' && needs?.unit === 'mm' && needs.round === 'up'
  const pair = isGap && units.length === 'in' ? gapAndNeed(has.value, needs.value, 'in') : []
  return row.message.replace(/(± )?\{(\d)\}/g, (slot, sign: string | undefined, index: string) => {
    const found = row.figures[Number(index)]
    if (!found) return slot
    const text = pair[Number(index)] ?? figure(found, units)
    return sign ? `±\u00a0${text.replace(' ', '\u00a0')}` : text // a ± stays in one line
  })
}

export type PlaceAxis = 'aft' | 'across' | 'up' | 'left' | 'right'

/** A place along one axis as it is typed, so that no sign is needed: `840`, `125 fore`, `350 L`; of a wall at the left `425`. */
export function along(valueMm: number, way: PlaceAxis, unit: LengthUnit): string {
  const size = length(Math.abs(valueMm), unit)
  if (size === '0' || size === '0"') return size
  const ahead = way === 'left' ? valueMm < 0 : valueMm > 0
  const back = { aft: 'fore', across: 'L', up: 'down', left: 'R', right: 'L' }[way]
  return `${size} ${ahead ? (way === 'across' ? 'R' : '') : back}`.trim()
}

/** `840 aft`, `120 R`, `310 up`. */
export function axisWord(axis: number, value: number): string {
  return axis === 0 ? (value < 0 ? 'fore' : 'aft') : axis === 1 ? (value < 0 ? 'L' : 'R') : 'up'
}

export function place(at: readonly number[], unit: LengthUnit): string {
  return at
    .map((v, axis) => {
      const size = axis < 2 ? Math.abs(v) : v
      return `${unit === 'mm' ? withCommas(length(size, unit)) : length(size, unit)} ${axisWord(axis, v)}`
    })
    .join(', ')
}

/** A moment in the reader's own form. */
export function when(moment: string): string {
  return new Date(moment).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
}
