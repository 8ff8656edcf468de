import { Collapsible } from 'radix-ui'
import { useState } from 'react'
import { Form } from 'react-router'
import { VerdictMark } from './glyphs'
import { TraceTable } from './reason-line'
import type { Judgement, VerdictWord } from '#core/progress/types'

export interface Row {
	athleteId: string
	ladderId: string
	name: string
	ladderName: string
	inputHash: string
	judgement: Judgement
	decided: { word: VerdictWord; reason: string | null } | null
	needsYou: boolean
	/** "5×2", what the next line will say. */
	nextDose: string
	refused: string | null
}

const key = (row: Pick<Row, 'athleteId' | 'ladderId'>) => `${row.athleteId}/${row.ladderId}`

/** Hidden fields that name one row as the coach saw it. */
export const decisionField = (row: Row) => <input key={key(row)} type="hidden" name="row" value={`${row.athleteId}/${row.ladderId}/${row.inputHash}`} />

/** A verdict that wants a look: sentence, trace, and the three ways on. */
export function OpenVerdict({ row, mayDecide }: { row: Row; mayDecide: boolean }) {
	const [overruling, setOverruling] = useState(false)
	const { judgement } = row
	return (
		<article className="border-t-2 border-ink py-3.5" aria-label={`${row.name}, ${row.ladderName}`}>
			<p className="flex flex-wrap items-center gap-x-2.5"><VerdictMark word={judgement.verdict} /><a className="font-bold hover:underline" href={`/athletes/${row.athleteId}`}>{row.name}</a> <span className="dim">{row.ladderName.toLowerCase()}</span></p>
			<p className="num my-1.5 max-w-[60ch] text-[19px] leading-snug font-medium">{judgement.sentence} <span className="dim text-[14px] font-normal">({judgement.firmness})</span></p>
			<TraceTable judgement={judgement} />
			{row.refused && <p className="problem mt-2" role="alert">{row.refused}</p>}
			{mayDecide && (
				<div className="mt-3 flex flex-wrap items-start gap-2">
					<Form method="post" preventScrollReset>
						{decisionField(row)}
						<button className="btn btn-quiet" name="do" value="accept">Accept</button>
					</Form>
					{judgement.tier === 'block'
						? <p className="dim max-w-[44ch] py-2 text-[14px]">A block cannot be overruled: the region opens when somebody records who cleared it, on the athlete’s page.</p>
						: <button type="button" className="btn btn-quiet" aria-expanded={overruling} onClick={() => setOverruling(!overruling)}>Other, with a reason</button>}
				</div>
			)}
			{overruling && mayDecide && <OverruleForm row={row} />}
		</article>
	)
}

export function OverruleForm({ row }: { row: Row }) {
	const id = `reason-${key(row)}`
	return (
		<Form method="post" preventScrollReset className="mt-2 grid max-w-[640px] gap-2 border-l-[3px] border-ink py-1 pl-3">
			{decisionField(row)}
			<label className="label" htmlFor={id}>Your reason, kept with your name and the time</label>
			<input id={id} name="reason" className="input" maxLength={500} required minLength={3} autoFocus />
			<div className="flex flex-wrap gap-2">
				{(['hold', 'ease', 'advance'] as const).map((word) => <button key={word} className="btn btn-quiet" name="do" value={word}>{word === 'hold' ? 'Hold as it was' : word === 'ease' ? 'Ease to two thirds' : 'Advance'}</button>)}
			</div>
		</Form>
	)
}

/** A verdict that reads well: one line, with its trace and the other way behind it. */
export function QuietVerdict({ row, mayDecide }: { row: Row; mayDecide: boolean }) {
	const [overruling, setOverruling] = useState(false)
	return (
		<Collapsible.Root asChild>
			<li className="rule py-1.5">
				<div className="grid grid-cols-[26px_1fr_auto] items-start gap-x-2.5 sm:grid-cols-[26px_150px_1fr_auto]">
					<span className="pt-0.5"><VerdictMark word={row.decided?.word ?? row.judgement.verdict} /></span>
					<a className="font-bold hover:underline" href={`/athletes/${row.athleteId}`}>{row.name}</a>
					<span className="col-span-2 col-start-2 row-start-2 text-[14.5px] sm:col-span-1 sm:col-start-3 sm:row-start-1">
						{row.judgement.sentence}
						{row.decided?.reason && <b className="block">Decided: {row.decided.word}. {row.decided.reason}</b>}
						{row.refused && <span className="problem block" role="alert">{row.refused}</span>}
					</span>
					<Collapsible.Trigger className="link min-h-[30px] px-1" aria-label={`Why: ${row.name}, ${row.ladderName}`}>why</Collapsible.Trigger>
				</div>
				<Collapsible.Content className="pb-2 sm:pl-[36px]">
					<TraceTable judgement={row.judgement} />
					{mayDecide && !row.decided && row.judgement.tier !== 'block' && <button type="button" className="btn btn-quiet mt-2" aria-expanded={overruling} onClick={() => setOverruling(!overruling)}>Other, with a reason</button>}
					{overruling && <OverruleForm row={row} />}
				</Collapsible.Content>
			</li>
		</Collapsible.Root>
	)
}
