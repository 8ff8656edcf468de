/** What is under foot. */
export const SURFACES = ['grass', 'wet-grass', 'track', 'hard-court', 'gravel', 'indoor'] as const
export type Surface = (typeof SURFACES)[number]
