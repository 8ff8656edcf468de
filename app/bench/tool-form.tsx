import { useId } from 'react'
import { type Draft, type FieldSpec, type FormSpec, readPasted } from './read-form'

type Change = (change: (draft: Draft) => Draft) => void

/** A number with its unit; what is wrong with it stands below. */
export function NumberField({
	field,
	value,
	problem,
	onChange,
}: {
	field: FieldSpec
	value: string
	problem: string | undefined
	onChange: (text: string) => void
}) {
	const id = useId()
	const say = problem ?? field.hint
	return (
		<div className="field">
			<label htmlFor={id}>
				{field.label}{' '}
				<span className="dim font-normal">
					{field.unit}
					{field.optional && ', if known'}
				</span>
			</label>
			<input
				id={id}
				className="input"
				inputMode="decimal"
				autoComplete="off"
				value={value}
				aria-invalid={problem !== undefined}
				aria-describedby={say ? `${id}-say` : undefined}
				onChange={(event) => onChange(event.target.value)}
			/>
			{say && (
				<p id={`${id}-say`} className={problem ? 'problem' : 'dim text-[13.5px]'} role={problem ? 'alert' : undefined}>
					{say}
				</p>
			)}
		</div>
	)
}

export function ToolFields({
	fields,
	draft,
	problems,
	change,
}: {
	fields: readonly FieldSpec[]
	draft: Draft
	problems: Record<string, string>
	change: Change
}) {
	return (
		<>
			{fields.map((field) => (
				<NumberField
					key={field.key}
					field={field}
					value={draft.values[field.key] ?? ''}
					problem={problems[field.key]}
					onChange={(text) => change((now) => ({ ...now, values: { ...now.values, [field.key]: text } }))}
				/>
			))}
		</>
	)
}

/** Rows to type or paste into. There is always one empty row at the end; a row is removed by its cross. */
export function ToolRows({
	rows,
	draft,
	problems,
	change,
}: {
	rows: NonNullable<FormSpec['rows']>
	draft: Draft
	problems: Record<string, string>
	change: Change
}) {
	const set = (row: number, key: string, text: string) =>
		change((now) => ({ ...now, rows: now.rows.map((old, index) => (index === row ? { ...old, [key]: text } : old)) }))
	const paste = (event: React.ClipboardEvent, row: number, column: number) => {
		const cells = readPasted(event.clipboardData.getData('text'))
		if (cells.length < 2 && (cells[0]?.length ?? 0) < 2) return
		event.preventDefault()
		change((now) => {
			const next = now.rows.map((old) => ({ ...old }))
			cells.forEach((line, down) => {
				const target = (next[row + down] ??= {})
				line.forEach((text, across) => {
					const into = rows.columns[column + across]
					if (into) target[into.key] = text
				})
			})
			return { ...now, rows: next }
		})
	}
	const wrong = Object.entries(problems).filter(([key]) => key.startsWith('rows['))
	return (
		<fieldset>
			<legend className="label">{rows.label}</legend>
			<table className="mt-1 w-full border-collapse">
				<thead>
					<tr>
						{rows.columns.map((column) => (
							<th key={column.key} scope="col" className="dim pb-1 text-left text-[13px] font-normal">
								{column.label}, {column.unit}
							</th>
						))}
						<th>
							<span className="sr-only">Remove</span>
						</th>
					</tr>
				</thead>
				<tbody>
					{draft.rows.map((row, index) => (
						<tr key={index}>
							{rows.columns.map((column, across) => (
								<td key={column.key} className="pr-1.5 pb-1.5">
									<input
										className="input num"
										inputMode="decimal"
										autoComplete="off"
										aria-label={`${column.label}, row ${index + 1}`}
										aria-invalid={problems[`rows[${index}].${column.key}`] !== undefined}
										value={row[column.key] ?? ''}
										onPaste={(event) => paste(event, index, across)}
										onChange={(event) => set(index, column.key, event.target.value)}
									/>
								</td>
							))}
							<td className="w-[44px] pb-1.5">
								<button
									type="button"
									className="dim flex size-[44px] items-center justify-center"
									aria-label={`Remove row ${index + 1}`}
									onClick={() =>
										change((now) => ({
											...now,
											rows: now.rows.length > 1 ? now.rows.filter((_, at) => at !== index) : [{}],
										}))
									}
								>
									<span aria-hidden className="text-[20px]">
										×
									</span>
								</button>
							</td>
						</tr>
					))}
				</tbody>
			</table>
			{wrong.map(([key, text]) => (
				<p key={key} className="problem" role="alert">
					Row {Number(/\d+/.exec(key)?.[0]) + 1}: {text}
				</p>
			))}
			<button
				type="button"
				className="link inline-flex min-h-[44px] items-center gap-1.5 text-[14px]"
				onClick={() => change((now) => ({ ...now, rows: [...now.rows, {}] }))}
			>
				One more row
			</button>
		</fieldset>
	)
}
