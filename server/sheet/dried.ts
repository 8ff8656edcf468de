import type { Surface } from '../../core/vocabulary/words'

/** The ground as it will be another day: wet is a thing of the day. */
export const dried = (surface: Surface | null): Surface | null => (surface === 'wet-grass' ? 'grass' : surface)
