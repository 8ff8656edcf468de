/** In the place of what a password costs: a third of a second of a core for each would be a tenth of all unit tests. */
export const COST = { N: 2 ** 10, r: 8, p: 2 }
