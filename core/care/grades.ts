import type { CareReport } from '../vocabulary/care'
import type { Leg } from '../vocabulary/words'

/** Grades of pain [our setting; direction: common practice]. */
export const SPARE_FROM = 3
export const CLOSE_FROM = 5
/** Pain of 3 or more on two days at most so many apart closes; a noted region is shown for so long. */
export const WITHIN_DAYS = 14

/** A blow or strong pain at the head or neck is a report of the head, not of a region. */
const ofHead = (report: CareReport): boolean =>
	report.kind === 'head' ||
	(report.kind === 'pain' &&
		report.region === 'neck-head' &&
		(report.redFlag === true || (report.score ?? 0) >= CLOSE_FROM))
export const closesEverything = (report: CareReport): boolean => report.kind === 'chest' || ofHead(report)

/** Whether what was said of a side, or of none, is about this one. */
export const touches = (one: { side?: string | undefined }, side: Leg): boolean =>
	one.side === undefined || one.side === 'both' || one.side === side
