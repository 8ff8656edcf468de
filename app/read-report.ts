import type { ReportTyped } from '#server/care/report'

/** What a report form sends, wherever it stands. */
export const readReport = ({ text, form }: { text: (name: string) => string; form: FormData }): ReportTyped => ({
	kind: text('kind'),
	region: text('region'),
	side: text('side'),
	score: text('score'),
	moment: text('moment'),
	redFlag: form.get('redFlag') === 'on',
	note: text('note'),
})
