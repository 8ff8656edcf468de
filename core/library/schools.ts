import type { School } from './types'

/** The default school: few perfect reps, low boxes judged by contact time, stop at the peak. Numbers are our setting. */
export const QUALITY_FIRST: School = {
	id: 'quality-first',
	version: 1,
	name: 'Quality first',
	passCeilingMs: { level2: 250, level3: 200 },
	highestBoxCm: 45,
	depthJumpPhases: ['peaking'],
	dropOffPercent: { speed: 3, repeatSpeed: 5, jumpHeight: 5, contact: 10 },
	rampPercent: 15,
	advancesPerSession: 1,
}

export const SCHOOLS: School[] = [QUALITY_FIRST]
