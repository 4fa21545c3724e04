/** The typed client, and what each answer means. */
import createClient from 'openapi-fetch'

import { GONE, Gone, noticing } from './away'
import type { paths } from './schema'
import type { Problem } from './types'

function sessionName(): string {
  const kept = sessionStorage.getItem('level-cradle-session')
  if (kept) return kept
  const made = crypto.randomUUID()
  sessionStorage.setItem('level-cradle-session', made)
  return made
}

const NAME = 'level-cradle-who'

/** Whose edits these are: this tab's session, and the name that whoever works here gave. */
export const SESSION: { 'X-Session': string; 'X-Who'?: string } = { 'X-Session': sessionName() }
export const whoWorks = () => localStorage.getItem(NAME) ?? ''
export function nameWho(name: string) {
  localStorage.setItem(NAME, name)
  SESSION['X-Who'] = encodeURIComponent(name)
}
if (whoWorks()) nameWho(whoWorks())

export const api = createClient<paths>({ baseUrl: '/', fetch: noticing })

/** What a refused request says, as one sentence. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.errors?.[0]?.message ?? problem.detail)
  }
}

/** A text that says too little, told at its blank like a refusal of the server's. */
export function misread(words: string): Refused {
  return new Refused({ title: 'Not understood', status: 422, detail: words })
}

/** Whether nobody answered, or the database behind the server is away: what was asked may be asked again. */
export function isAway(error: unknown): boolean {
  return error instanceof Gone || (error instanceof Refused && GONE.includes(error.problem.status))
}

/** What to say of anything that went wrong on the way. */
export function wordsOf(error: unknown): string {
  return error instanceof Refused ? error.message : 'No answer; try again.'
}

/** That an answer without data came. Throws Refused. */
export function done(answer: { error?: unknown; response: Response }) {
  if (!answer.response.ok) taken(answer)
}

/** The data of an answer. Throws Refused with the server's own words. */
export function taken<T>(answer: { data?: T; error?: unknown; response: Response }): T {
  if (answer.data !== undefined) return answer.data
  const problem = answer.error as Problem | undefined
  const { status } = answer.response
  throw new Refused(
    problem?.detail ? problem : { title: 'No answer', status, detail: 'The server does not answer.' },
  )
}
