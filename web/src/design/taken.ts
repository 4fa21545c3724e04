/** Figures that something new is begun with: it can be drawn, its blanks are empty, and no check counts on them until they are taken. */
import { pointer } from './pointer'
import rules from './rules.json'
import type { Document, Op } from './types'

const NOT_TAKEN = 'not taken'

/** Puts something new there, all its measures not taken. */
export function begin(document: Document, op: 'add' | 'replace', path: string, value: unknown): Op[] {
  const notes = measures(path, value).map((figure): Op => {
    const note = { text: '', basis: NOT_TAKEN }
    return {
      op: figure in document.readings ? 'replace' : 'add',
      path: pointer('readings', figure),
      value: note,
    }
  })
  return [{ op, path, value }, ...notes]
}

function measures(path: string, value: unknown): string[] {
  if (typeof value === 'number') return isMeasure(path) ? [path] : []
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value)
    .filter(([key]) => !rules.measures.aside.includes(key))
    .flatMap(([key, inner]) => measures(`${path}/${key}`, inner))
}

const { endings, counted } = rules.measures
const isMeasure = (path: string) =>
  path.split('/').some((step) => endings.some((ending) => step.endsWith(ending)) || counted.includes(step))

/** Whether everything under a path was taken. */
export function isTaken({ readings }: Document, path: string): boolean {
  return !Object.entries(readings).some(
    ([key, { basis }]) => basis === NOT_TAKEN && (key === path || key.startsWith(`${path}/`)),
  )
}
