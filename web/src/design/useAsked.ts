/** An order to the core that answers with a patch: it is applied, or the words say why it cannot be. */
import { useState } from 'react'

import { wordsOf } from './api'
import { useLive } from './live'
import type { Op } from './types'

export function useAsked() {
  const edit = useLive((s) => s.edit)
  const [problem, setProblem] = useState('')
  async function ask(order: () => Promise<{ patch: Op[] }>) {
    setProblem('')
    try {
      return await edit((await order()).patch)
    } catch (error) {
      setProblem(wordsOf(error))
      return false
    }
  }
  return { ask, problem }
}
