import { parse } from 'csv-parse/sync'

const MOST_COLUMNS = 40

/** The character that stands between the cells: the one most of the first line's cells are parted by. */
function delimiterOf(text: string): string {
	const line = text.split(/\r?\n/).find((one) => one.trim() !== '') ?? ''
	const bare = line.replace(/"[^"]*"/g, '')
	const count = (one: string) => bare.split(one).length
	return ['\t', ';', ','].reduce((best, one) => (count(one) > count(best) ? one : best))
}

/**
 * Rows of cells out of what was pasted or read from a file (RFC 4180, with tabs or semicolons too); rows without
 * anything in them are none.
 *
 * @param most characters and rows, the heading among them
 * @param trim whether blanks around a cell are nothing
 */
export function cellsOf(
	text: string,
	{ characters, rows: most, trim = true }: { characters?: number; rows: number; trim?: boolean },
): string[][] | { problem: string } {
	if (characters !== undefined && text.length > characters)
		return { problem: `A list of up to ${characters / 1000} kB is expected.` }
	try {
		const rows = (
			parse(text, {
				delimiter: delimiterOf(text),
				bom: true,
				relaxColumnCount: true,
				relaxQuotes: trim,
				trim,
			}) as string[][]
		).filter((row) => row.some((cell) => cell !== ''))
		if (rows.length === 0) return { problem: 'Paste the list, or choose its file.' }
		if (rows.length > most)
			return { problem: `${rows.length} rows are too many at once; up to ${most - 1} are expected.` }
		if (rows.some((row) => row.length > MOST_COLUMNS))
			return { problem: `Rows of up to ${MOST_COLUMNS} cells are expected.` }
		return rows
	} catch (error) {
		return { problem: `The list cannot be read: ${(error as Error).message}` }
	}
}
