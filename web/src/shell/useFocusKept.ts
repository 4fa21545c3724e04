/** What has the focus may be taken away by what was done: then the focus stays as near as it can, and never drops to the page's start. */
import { useEffect } from 'react'

const PLACES = 'aside, section[aria-label], [role=group], main'
const PRESSED = 'button:not(:disabled), a[href], summary, [tabindex="0"]'

const nameOf = (element: Element) => element.getAttribute('aria-label') ?? element.textContent

export function useFocusKept() {
  useEffect(() => {
    let last: { element: Element; name: string | null; within: Element[] } | null = null
    function remember({ target }: FocusEvent) {
      if (!(target instanceof Element)) return
      const within: Element[] = []
      for (let place = target.closest(PLACES); place; place = place.parentElement?.closest(PLACES) ?? null)
        within.push(place)
      last = { element: target, name: nameOf(target), within }
    }
    const watcher = new MutationObserver(() => {
      if (!last || last.element.isConnected || document.activeElement !== document.body) return
      const { name, within } = last
      last = null
      const near = within.find((place) => place.isConnected) ?? document.querySelector('main')
      if (!near) return
      const all = [...near.querySelectorAll<HTMLElement>(PRESSED)].filter((e) => e.checkVisibility())
      const next = all.find((e) => nameOf(e) === name) ?? all[0]
      next?.focus({ preventScroll: true })
    })
    document.addEventListener('focusin', remember)
    watcher.observe(document.body, { childList: true, subtree: true })
    return () => {
      document.removeEventListener('focusin', remember)
      watcher.disconnect()
    }
  }, [])
}
