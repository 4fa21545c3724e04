/** Whether a mount carries a box. */
import type { Mount } from './types'

export const carries = (mount: Mount, box: string) => `boxes/${box}` in mount.carries
