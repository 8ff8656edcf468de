import { addTo } from '#core/lists/group-by'
import { Link } from 'react-router'
import { shortDay } from '#core/calendar/say-day'
import { PostForm } from '../ui/post-form'
import { useUnits } from '../field/units'

interface Measurement {
	id: string
	takenOn: string
	title: string
	method: string
	calculation: string
	headline: string
	followed: { name: string; unit: string; digits: number; value: number } | null
}

/** What the bench measured: of each kind the last, with how it went from time to time, alike with alike. */
export function BenchList({ measured, mayMeasure }: { measured: readonly Measurement[]; mayMeasure: boolean }) {
	const alike = new Map<string, Measurement[]>()
	for (const one of measured) {
		const key = `${one.calculation}/${one.method}`
		addTo(alike, key, one)
	}
	return (
		<section>
			<h2>Measured at the bench</h2>
			{measured.length === 0 ? (
				<p className="rule dim mt-2 py-2">
					Nothing yet.
					{mayMeasure && (
						<>
							{' '}
							<Link className="link" to="/bench">
								To the bench
							</Link>
						</>
					)}
				</p>
			) : (
				<ul className="mt-2">
					{[...alike].map(([key, rows]) => (
						<li key={key} className="rule py-1.5">
							<One row={rows[0]!} mayMeasure={mayMeasure} />
							<Course rows={rows} />
							{rows.length > 1 && (
								<details>
									<summary className="link inline-flex min-h-[44px] items-center text-[13.5px]">
										{rows.length - 1} earlier
									</summary>
									{rows.slice(1).map((row) => (
										<One key={row.id} row={row} mayMeasure={mayMeasure} />
									))}
								</details>
							)}
						</li>
					))}
				</ul>
			)}
		</section>
	)
}

/** The followed number from the oldest to the newest. */
function Course({ rows }: { rows: readonly Measurement[] }) {
	const { asRead } = useUnits()
	const numbers = [...rows].reverse().flatMap(({ takenOn, followed }) => (followed ? [{ takenOn, ...followed }] : []))
	const [first] = numbers
	if (!first || numbers.length < 2) return null
	return (
		<p className="mt-0.5 text-[14px]">
			{first.name}:{' '}
			<span className="num">
				{numbers.map(({ value, digits }) => asRead(`${value.toFixed(digits)} ${first.unit}`)).join(' → ')}
			</span>{' '}
			<span className="dim">since {shortDay(first.takenOn)}</span>
		</p>
	)
}

function One({ row, mayMeasure }: { row: Measurement; mayMeasure: boolean }) {
	const { asRead } = useUnits()
	return (
		<div className="grid grid-cols-[1fr_auto] gap-x-3">
			<span>
				{row.title}: <b>{asRead(row.headline)}</b>
				<span className="dim block text-[13px]">
					{shortDay(row.takenOn)}, {row.method}
				</span>
			</span>
			{mayMeasure && (
				<PostForm preventScrollReset>
					<input type="hidden" name="measurement" value={row.id} />
					<button
						className="link min-h-[44px] text-[13.5px]"
						name="do"
						value="take-back"
						aria-label={`Take back: ${row.title}, ${row.headline}`}
					>
						Take back
					</button>
				</PostForm>
			)}
		</div>
	)
}
