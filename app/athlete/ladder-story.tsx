import { shortDay } from '#core/calendar/say-day'
import type { LadderState } from '#core/judge/types'
import type { Family } from '#core/vocabulary/words'
import { writeDose } from '#core/words/write-numbers'
import { FamilyMark } from '../ui/glyphs'
import { useUnits } from '../field/units'

export interface LadderRow {
	id: string
	name: string
	family: Family
	state: LadderState
	index: number
	onOneLeg: boolean
	over: string | null
	focus: 'priority' | 'kept' | null
	path: { name: string; steps: string[]; at: number } | null
	rungs: { id: string; name: string; passed: boolean; lock: string | null }[]
}

/** One ladder as steps from bottom to top: passed, here, locked with the gate named. */
export function LadderStory({ ladder }: { ladder: LadderRow }) {
	const { asRead } = useUnits()
	const { state } = ladder
	const next = ladder.rungs.findIndex((rung, index) => index > ladder.index && !rung.passed)
	return (
		<div className="rule pt-2">
			<h3 className="flex items-center gap-2">
				<FamilyMark family={ladder.family} label />
				{ladder.name}
				{!state.substitute && !state.reentry && (
					<span className="dim font-normal">
						{writeDose(state.dose)}
						{state.back && ` at ${state.back.percent} %`}
					</span>
				)}
				{ladder.focus === 'priority' && <span className="font-normal">priority</span>}
				{ladder.focus === 'kept' && <span className="dim font-normal">only kept</span>}
			</h3>
			<ol className="mt-1.5 flex list-none flex-col-reverse">
				{ladder.rungs.map((rung, index) => {
					const here = index === ladder.index
					// Far above, nothing can be done about it yet: the next gate is what matters.
					if (index > ladder.index + 3 && index !== next && !rung.passed) return null
					return (
						<li
							key={rung.id}
							className="flex items-center gap-2.5 py-0.5 text-[14px]"
							aria-current={here ? 'step' : undefined}
						>
							<i
								className={`block w-8 shrink-0 ${here ? 'h-[6px] bg-ink' : rung.passed ? 'h-[3px] bg-ink' : 'h-[3px] bg-chalk'}`}
							/>
							<span className={here ? 'font-bold' : rung.passed ? '' : 'dim'}>
								{asRead(rung.name)}
								{here && state.passed && ', passed'}
								{!here && !rung.passed && rung.lock && asRead(` — ${rung.lock}`)}
							</span>
						</li>
					)
				})}
			</ol>
			{ladder.rungs.length > ladder.index + 4 && <p className="dim text-[13px]">{ladder.rungs.length} rungs in all</p>}
			{ladder.path && (
				<p className="mt-1 text-[14px]">
					<b>{ladder.path.name}</b>: step {ladder.path.at + 1} of {ladder.path.steps.length},{' '}
					{asRead(ladder.path.steps[ladder.path.at]?.toLowerCase() ?? '')}.
				</p>
			)}
			{ladder.over && (
				<p className="mt-1 text-[14px]">
					<b>Over for now</b>: {asRead(ladder.over)}.
				</p>
			)}
			{state.favour && (
				<p className="mt-1 text-[14px]">
					{ladder.onOneLeg ? '' : 'In work on one leg: '}
					<b>
						{ladder.onOneLeg ? 'One' : 'one'} rep of each set moves to the {state.favour}
					</b>
					, not more in all.
				</p>
			)}
			{state.substitute && (
				<p className="mt-1 text-[14px]">
					<b>On a variation</b>, since {shortDay(state.substitute.since)}.
				</p>
			)}
		</div>
	)
}
