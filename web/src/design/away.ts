/** Whether the server answers: learned from whatever is asked of it, and looked at again until it does. */
import { create } from 'zustand'

const AGAIN_MS = 1500

interface Away {
  away: boolean
  back: () => void
}

export const useAway = create<Away>((set) => ({
  away: false,
  back: () => set({ away: false }),
}))

let looking = false
const hearers = new Set<() => void>()

/** Tells whoever asks once the server is back. */
export function whenBack(hear: () => void): () => void {
  hearers.add(hear)
  return () => void hearers.delete(hear)
}

async function lookUntilBack() {
  if (looking) return
  looking = true
  for (;;) {
    await new Promise((done) => setTimeout(done, AGAIN_MS))
    const answer = await fetch('/api/health').catch(() => null)
    if (answer?.ok) break
  }
  looking = false
  useAway.getState().back()
  hearers.forEach((hear) => hear())
}

function gone() {
  useAway.setState({ away: true })
  void lookUntilBack()
}

/** Nobody answers. */
export class Gone extends Error {}

/** A part of the page that cannot be fetched now is fetched once the server is back. */
export function patiently<T>(load: () => Promise<T>): Promise<T> {
  return load().catch(() => {
    gone()
    return new Promise<T>((done) => {
      const forget = whenBack(() => {
        forget()
        done(patiently(load))
      })
    })
  })
}

/** What somebody in between, or the server itself, says where it cannot be reached or its database is away. */
export const GONE = [502, 503, 504]

/** fetch, noticing where nobody answers; an answer that breaks off halfway is none. Throws Gone. */
export async function noticing(request: Request): Promise<Response> {
  const answer = await fetch(request).catch(() => null)
  const body = await answer?.arrayBuffer().catch(() => null)
  if (!answer || !body || GONE.includes(answer.status)) gone()
  if (!answer || !body) throw new Gone()
  return new Response(body.byteLength ? body : null, answer)
}
