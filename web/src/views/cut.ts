/** Where the section is cut: a place along the car, in millimetres aft; null while no section is shown. */
import { create } from 'zustand'

interface Cut {
  aft: number | null
  set: (aft: number | null) => void
}

export const useCut = create<Cut>((set) => ({
  aft: null,
  set: (aft) => set({ aft: aft === null ? null : Math.round(aft) }),
}))
