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

/** fetch, noticing where nobody answers, or the server says that its database is away. */
export async function noticing(request: Request): Promise<Response> {
  try {
    const answer = await fetch(request)
    if (answer.status === 503) gone()
    return answer
  } catch (error) {
    gone()
    throw error
  }
}
