/** The weighing that loads are counted from: the car as found. */
import type { Document, Read } from './types'

export const AS_FOUND = '/weighings/as-found'

export const asFound = (document: Document): Read | undefined => document.weighings['as-found']?.read
