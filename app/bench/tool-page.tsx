import type { ReactNode } from 'react'
import type { Calculation } from '#core/calc/calculation'
import { type Draft, type FormSpec, type Reading, readForm } from './read-form'
import { About } from './result-parts'
import type { BenchPerson } from './save-panel'
import { useDraft } from './use-draft'

/** What every tool is given: who can be kept with, and the club's day. */
export interface ToolProps {
	people: readonly BenchPerson[]
	squads: readonly string[]
	today: string
}

export const emptyRows = (count: number) => Array.from({ length: count }, (): Record<string, string> => ({}))

/** A tool's boxes and what they compute to, anew with every key. */
export function useTool<Input, Output>(
	tool: string,
	calculation: Calculation<Input, Output>,
	spec: FormSpec | ((draft: Draft) => FormSpec),
	empty: Draft,
): { draft: Draft; change: (change: (draft: Draft) => Draft) => void; reading: Reading<Input, Output> } {
	const [draft, change] = useDraft(tool, empty)
	return { draft, change, reading: readForm(typeof spec === 'function' ? spec(draft) : spec, draft, calculation) }
}

interface Props {
	inputs: ReactNode
	results: ReactNode
	about: { formula: string; source: string; limits: string }
	problem?: string | undefined
	onClear: () => void
}

/** Boxes to the left, what they say to the right; one under the other on the phone. */
export function ToolPage({ inputs, results, about, problem, onClear }: Props) {
	return (
		<div className="mt-6 grid print:block gap-x-12 gap-y-8 lg:grid-cols-[330px_1fr]">
			<div className="grid content-start gap-4 print:hidden">
				{inputs}
				{problem && (
					<p className="problem" role="alert">
						{problem}
					</p>
				)}
				<button type="button" className="link min-h-[44px] justify-self-start text-[14px]" onClick={onClear}>
					Clear all
				</button>
			</div>
			<div className="min-w-0">
				{results}
				<div className="print:hidden">
					<About {...about} />
				</div>
			</div>
		</div>
	)
}

/** A choice among a few words, kept with what is typed. */
export function ChoiceField({
	label,
	name,
	choices,
	draft,
	change,
	hint,
}: {
	label: string
	name: string
	choices: readonly (readonly [string, string])[]
	draft: Draft
	change: (change: (draft: Draft) => Draft) => void
	hint?: string
}) {
	return (
		<label className="field">
			<span className="label">{label}</span>
			<select
				className="input"
				value={draft.values[name] ?? choices[0]![0]}
				onChange={(event) => change((now) => ({ ...now, values: { ...now.values, [name]: event.target.value } }))}
			>
				{choices.map(([value, words]) => (
					<option key={value} value={value}>
						{words}
					</option>
				))}
			</select>
			{hint && <span className="dim text-[13.5px]">{hint}</span>}
		</label>
	)
}
