/** JSON pointers into the document, and patches applied to a copy of it. */
import { hashKey } from '@tanstack/react-query'
import { produce } from 'immer'

import type { Document, Op } from './types'

export function pointer(...steps: (string | number)[]): string {
  return steps.map((step) => '/' + String(step).replaceAll('~', '~0').replaceAll('/', '~1')).join('')
}

function steps(path: string): string[] {
  return path
    .split('/')
    .slice(1)
    .map((step) => step.replaceAll('~1', '/').replaceAll('~0', '~'))
}

type Tree = Record<string, unknown>

export function at(tree: unknown, path: string): unknown {
  return steps(path).reduce<unknown>((here, step) => (here as Tree | undefined)?.[step], tree)
}

/** The document with a patch the server has accepted. */
export function patched(document: Document, patch: readonly Op[]): Document {
  return produce(document, (draft) => {
    for (const { op, path, value } of patch) {
      const way = steps(path)
      const last = way.pop() as string
      const parent = way.reduce<Tree>((here, step) => here[step] as Tree, draft)
      if (op === 'remove') Reflect.deleteProperty(parent, last)
      else if (op !== 'test') parent[last] = value
    }
  })
}

/** Whether a document is already as a patch would make it. */
export function isDone(document: Document, patch: readonly Op[]): boolean {
  if (patch.length === 0) return false
  try {
    const after = patched(document, patch)
    return patch.every(({ path }) => hashKey([at(after, path)]) === hashKey([at(document, path)]))
  } catch {
    return false // it speaks of what is not there
  }
}

/** A short readable id that is not taken yet. */
export function freeId(name: string, taken: object): string {
  const slug =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 40) || 'thing'
  for (let n = 1; ; n += 1) {
    const id = n === 1 ? slug : `${slug}-${n}`
    if (!(id in taken)) return id
  }
}

/** A path in words: the thing's name and what of it, "tank: floor". */
export function named(document: Document, path: string): string {
  const [collection = '', id = '', ...rest] = steps(path)
  const thing = at(document, pointer(collection, id)) as { name?: string } | null | undefined
  const plain = (step: string) => step.replace(/_(n_per_mm|mm|kg|deg|v)$/, '').replaceAll(/[_-]/g, ' ')
  const what = rest.filter((step) => !/^\d+$/.test(step)).at(-1)
  return [thing?.name ?? plain(id || collection), what && plain(what)].filter(Boolean).join(': ')
}
