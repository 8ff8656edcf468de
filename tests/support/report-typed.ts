import type { ReportTyped } from '../../server/care/report'

/** A report as its form sends it, with nothing said but what is named. */
export const typedReport = (kind: string, more: Partial<ReportTyped> = {}): ReportTyped => ({
	kind,
	region: '',
	side: '',
	score: '',
	moment: 'during',
	redFlag: false,
	note: '',
	...more,
})
