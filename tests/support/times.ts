/** How many times as many random cases the properties look at: `LAW_RUNS=10` ten times as many. */
export const TIMES = Number(process.env.LAW_RUNS ?? 1)
if (!(TIMES >= 1)) throw new Error('LAW_RUNS: a number from 1 on is expected')
