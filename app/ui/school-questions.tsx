import { NUMBER_BOUNDS, QUESTIONS } from '#core/library/schools'
import type { School } from '#core/vocabulary/school'

/** Both sides of every question, with who takes which. Read only. */
export function SchoolQuestions({ schools }: { schools: School[] }) {
	return (
		<ul>
			{QUESTIONS.map((question) => (
				<li key={question.id} className="rule py-4">
					<h2>{question.question}</h2>
					<div className="mt-2 grid gap-x-10 gap-y-3 sm:grid-cols-2">
						{question.sides.map((side) => {
							const taken = schools.filter((school) => school.choices[question.id] === side.id)
							return (
								<div key={side.id}>
									<p>
										<b>{side.name}.</b> {side.why}
									</p>
									<p className="dim text-[14px]">{side.does}</p>
									<p className="dim text-[13.5px]">
										{taken.length > 0
											? `Taken by ${taken.map((school) => school.name).join(', ')}.`
											: 'No preset takes it: a choice of a squad’s own.'}
									</p>
								</div>
							)
						})}
					</div>
				</li>
			))}
		</ul>
	)
}

/** The numbers of each preset beside their bounds. */
export function SchoolNumbersTable({ schools }: { schools: School[] }) {
	return (
		<div className="overflow-x-auto" role="region" aria-label="What the schools say" tabIndex={0}>
			<table className="w-full min-w-[720px] border-collapse">
				<thead>
					<tr className="border-b-2 border-ink text-left align-bottom">
						<th className="py-1.5 pr-4 font-bold">Number</th>
						{schools.map((school) => (
							<th key={school.id} className="px-2 py-1.5 text-right font-bold">
								{school.name}
							</th>
						))}
						<th className="py-1.5 pl-4 text-right font-normal dim">bounds</th>
					</tr>
				</thead>
				<tbody>
					{NUMBER_BOUNDS.map((bound) => (
						<tr key={bound.id} className="border-b border-chalk">
							<td className="py-1.5 pr-4">
								{bound.name}
								{bound.unit && <span className="dim">, {bound.unit}</span>}
							</td>
							{schools.map((school) => (
								<td key={school.id} className="num px-2 text-right">
									{school.numbers[bound.id]}
								</td>
							))}
							<td className="dim num pl-4 text-right">
								{bound.low}–{bound.high}
							</td>
						</tr>
					))}
				</tbody>
			</table>
		</div>
	)
}
