/** Enter takes what is typed, and leaving the blank takes it too: together they take it once, however slow the answer is. */
import { type KeyboardEvent, useEffect, useRef } from 'react'

export function useTakenOnce(commit: () => Promise<boolean>, text: string | null): () => Promise<boolean> {
  const taking = useRef<{ text: string; done: Promise<boolean> } | null>(null)
  useEffect(() => {
    if (text === null) taking.current = null
  }, [text])
  return () => {
    if (text === null) return commit()
    if (taking.current?.text !== text) {
      const done = commit()
      taking.current = { text, done }
      // what was refused may be tried again
      void done.then((taken) => {
        if (!taken && taking.current?.done === done) taking.current = null
      })
    }
    return taking.current.done
  }
}

/** Keys stay in a blank, but for a step back from one in which nothing is being typed (it says so by ``data-stored``): there the
 * browser would bring back a text that is not stored. */
export function kept(event: KeyboardEvent, typing: boolean) {
  if (typing || !(event.ctrlKey || event.metaKey)) event.stopPropagation()
}

/** What a draft becomes once its text has been taken or refused; what was typed meanwhile stays. */
export const unlessTyped =
  <D extends { text: string } | null>(taken: string, next: D) =>
  (now: D): D =>
    now && now.text !== taken ? now : next

/** Enter goes on at once, as fast as one types; back to what was refused, unless something else has been typed by then. */
export function goOn(taken: Promise<boolean>, from: HTMLInputElement, go: () => void) {
  go()
  const to = document.activeElement
  const text = (to as HTMLInputElement | null)?.value
  void taken.then((done) => {
    if (!done && document.activeElement === to && (to as HTMLInputElement | null)?.value === text)
      from.focus()
  })
}
