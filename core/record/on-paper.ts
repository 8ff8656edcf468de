/** How numbers on paper were taken, where nobody says otherwise. */
export const ON_PAPER = { sprint: 'stopwatch', contact: 'mat', height: 'mat', distance: 'tape' } as const
