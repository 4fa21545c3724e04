/** The two weighings that predict and prove: the car as found, and finished. */
import type { Document, Read } from './types'

export const AS_FOUND = '/weighings/as-found'
export const FINISHED = '/weighings/finished'

export const asFound = (document: Document): Read | undefined => document.weighings['as-found']?.read
export const finished = (document: Document): Read | undefined => document.weighings['finished']?.read
