/** The typed client, and what each answer means. */
import createClient from 'openapi-fetch'

import { noticing } from './away'
import type { paths } from './schema'
import type { Problem } from './types'

function sessionName(): string {
  const kept = sessionStorage.getItem('level-cradle-session')
  if (kept) return kept
  const made = crypto.randomUUID()
  sessionStorage.setItem('level-cradle-session', made)
  return made
}

export const SESSION = { 'X-Session': sessionName() }
export const api = createClient<paths>({ baseUrl: '/', fetch: noticing })

/** What a refused request says, as one sentence. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.errors?.[0]?.says ?? problem.detail)
  }
}

/** A text that says too little, told at its blank like a refusal of the server's. */
export function misread(words: string): Refused {
  return new Refused({ title: 'Not understood', status: 0, detail: words })
}

/** What to say of anything that went wrong on the way. */
export function wordsOf(error: unknown): string {
  return error instanceof Refused ? error.message : 'No answer; try again.'
}

/** The data of an answer. Throws Refused with the server's own words. */
export function taken<T>(answer: { data?: T; error?: unknown }): T {
  if (answer.data !== undefined) return answer.data
  const problem = answer.error as Problem | undefined
  throw new Refused(
    problem?.detail ? problem : { title: 'No answer', status: 0, detail: 'The server does not answer.' },
  )
}
