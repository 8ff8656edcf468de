import type { ClipboardEvent, KeyboardEvent } from 'react'
import { ON_PAPER } from '#core/record/on-paper'
import { METHODS_OF, METHOD_NAMES } from '#core/vocabulary/words'
import { PostForm } from './post-form'

/** A rep, on the side it was done where each side has its own. */
interface Place {
	setNo: number
	repNo: number
	side: 'left' | 'right' | null
}
/** A line that numbers from paper may go to. */
interface Line {
	lineId: string
	name: string
	logs: 'sprint' | 'contact' | 'height' | 'distance' | 'done'
	asks: string[]
	open: Place[]
}

const usualOnPaper = ([first]: readonly Line[]) => (first && first.logs !== 'done' ? ON_PAPER[first.logs] : undefined)
const placeKey = ({ setNo, repNo, side }: Place) => `${setNo}/${repNo}${side ? `/${side}` : ''}`
const sideOrder = (side: Place['side']) => (side === 'right' ? 1 : 0)

/** Athletes down, reps across: only what nobody logged is open. */
export function PaperGrid({
	entryId,
	lines,
	problems,
	busy,
}: {
	entryId: string
	lines: readonly Line[]
	/** Why a cell cannot be read, by the cell’s place. */
	problems: Record<string, string>
	busy: boolean
}) {
	const places = [
		...new Map(lines.flatMap(({ open }) => open.map((place) => [placeKey(place), place] as const))).values(),
	].sort((a, b) => a.setNo - b.setNo || a.repNo - b.repNo || sideOrder(a.side) - sideOrder(b.side))
	const methods = [...new Set(lines.flatMap(({ logs }) => (logs === 'done' ? [] : METHODS_OF[logs])))]
	const sets = new Set(places.map(({ setNo }) => setNo)).size
	const asks = [...new Set(lines.flatMap((line) => line.asks))]
	return (
		<PostForm preventScrollReset className="mt-1 overflow-x-auto" autoComplete="off">
			<input type="hidden" name="entry" value={entryId} />
			<table>
				<caption className="dim pb-1 text-left text-[14px]">{asks.join(' · ')}</caption>
				<thead>
					<tr>
						<th scope="col" className="sr-only">
							Athlete
						</th>
						{places.map((place) => (
							<th key={placeKey(place)} scope="col" className="dim px-1 text-left text-[13.5px] font-normal">
								{sets > 1 ? `${place.setNo}.${place.repNo}` : place.repNo}
								{place.side && ` ${place.side}`}
							</th>
						))}
					</tr>
				</thead>
				<tbody>
					{lines.map((line, row) => (
						<tr key={line.lineId}>
							<th scope="row" className="pr-3 text-left font-semibold whitespace-nowrap">
								{line.name}
							</th>
							{places.map((place, column) => {
								const key = `${line.lineId}/${placeKey(place)}`
								const isOpen = line.open.some((one) => placeKey(one) === placeKey(place))
								return (
									<td key={key} className="p-0.5">
										{isOpen ? (
											<input
												className="input num w-[5.2rem]"
												name={`cell/${key}`}
												inputMode="decimal"
												aria-label={`${line.name}, set ${place.setNo}, rep ${place.repNo}${place.side ? `, ${place.side}` : ''}`}
												aria-invalid={problems[key] !== undefined}
												title={problems[key]}
												data-row={row}
												data-column={column}
												onKeyDown={down}
												onPaste={pasted}
											/>
										) : (
											<span className="dim px-2">·</span>
										)}
									</td>
								)
							})}
						</tr>
					))}
				</tbody>
			</table>
			<div className="mt-2 flex flex-wrap items-end gap-3">
				{methods.length > 0 && (
					<label className="grid gap-1">
						Taken by
						<select className="input" name="method" defaultValue={usualOnPaper(lines)}>
							{methods.map((method) => (
								<option key={method} value={method}>
									{METHOD_NAMES[method]}
								</option>
							))}
						</select>
					</label>
				)}
				<button className="btn" name="do" value="paper" disabled={busy}>
					{busy ? 'Writing …' : 'Keep these'}
				</button>
			</div>
		</PostForm>
	)
}

const cellAt = (form: HTMLFormElement | null, row: number, column: number) =>
	form?.querySelector<HTMLInputElement>(`input[data-row="${row}"][data-column="${column}"]`) ?? null

/** Enter goes to the next athlete, as on paper one goes down the list; it never sends the grid. */
function down(event: KeyboardEvent<HTMLInputElement>): void {
	if (event.key !== 'Enter') return
	event.preventDefault()
	const { form, dataset } = event.currentTarget
	cellAt(form, Number(dataset.row) + 1, Number(dataset.column))?.focus()
}

/** A block of cells, as a spreadsheet copies it, goes to the right and down; a single number as usual. */
function pasted(event: ClipboardEvent<HTMLInputElement>): void {
	const rows = event.clipboardData
		.getData('text/plain')
		.replace(/\r?\n$/, '')
		.split(/\r?\n/)
		.map((row) => row.split('\t'))
	if (rows.length === 1 && rows[0]!.length === 1) return
	event.preventDefault()
	const { form, dataset } = event.currentTarget
	rows.forEach((cells, row) =>
		cells.forEach((text, column) => {
			const cell = cellAt(form, Number(dataset.row) + row, Number(dataset.column) + column)
			if (cell) cell.value = text.trim()
		}),
	)
}
