/** Whether the screen is worked with fingers, or so narrow that it is laid out for them. The style sheet asks the same. */
import { useSyncExternalStore } from 'react'

const asked = window.matchMedia('(pointer: coarse), (max-width: 1100px)')

function watch(changed: () => void) {
  asked.addEventListener('change', changed)
  return () => asked.removeEventListener('change', changed)
}

export function useTouch(): boolean {
  return useSyncExternalStore(watch, () => asked.matches)
}
