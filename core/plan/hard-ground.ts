import type { Surface } from '../vocabulary/words'

/** What hard ground leaves of a session's contacts [our setting]; the counts themselves never change. */
export const HARD_GROUND_SHARE = 0.8
export const HARD_GROUND: readonly Surface[] = ['hard-court', 'gravel']
