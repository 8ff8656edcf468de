import { addTo } from '#core/lists/group-by'
import { Collapsible } from 'radix-ui'
import { useId, useState } from 'react'
import { VerdictMark } from './glyphs'
import { TraceTable } from './trace-table'
import { sayFirmness } from '#core/words/say-firmness'
import { sayTogether } from '#core/judge/cause'
import type { Judgement, VerdictWord } from '#core/judge/types'
import { PostForm } from './post-form'
import { useUnits } from '../field/units'

export interface Row {
	athleteId: string
	ladderId: string
	name: string
	ladderName: string
	inputHash: string
	judgement: Judgement
	decided: { word: VerdictWord; turn: number; reason: string | null } | null
	needsYou: boolean
	/** Nothing of the athlete was logged in the whole session. */
	absent: boolean
	/** The drill that stands in, when the verdict swaps. */
	instead: string | null
	refused: string | null
	wouldNowBe: { verdict: VerdictWord; sentence: string } | null
	/** What was decided before it was decided anew, the oldest first. */
	before: { word: VerdictWord; at: string; reason: string | null }[]
}

const key = (row: Pick<Row, 'athleteId' | 'ladderId'>) => `${row.athleteId}/${row.ladderId}`

/** Hidden fields that name one row as the coach saw it, and the decision that stood. */
export const decisionField = (row: Row) => (
	<input
		key={key(row)}
		type="hidden"
		name="row"
		value={[row.athleteId, row.ladderId, row.inputHash, ...(row.decided ? [row.decided.turn] : [])].join('/')}
	/>
)

/** Rows of one athlete with one cause: pain in a knee is one decision, whatever ladders it touches. */
export function groupOpen(rows: Row[]): Row[][] {
	const groups = new Map<string, Row[]>()
	for (const row of rows) {
		const cause = ['S1', 'S2'].includes(row.judgement.decidedBy)
			? `${row.athleteId}/${row.judgement.decidedBy}/${row.judgement.verdict}`
			: key(row)
		addTo(groups, cause, row)
	}
	return [...groups.values()]
}

/** A verdict that wants a look: sentence, what decided it, and the ways on. */
export function OpenVerdict({ rows, mayDecide }: { rows: Row[]; mayDecide: boolean }) {
	const { asRead } = useUnits()
	const [overruling, setOverruling] = useState(false)
	const [first] = rows
	if (!first) return null
	const { judgement } = first
	const together = sayTogether(rows)
	const sentences = together ? [together.cause] : [...new Set(rows.map((row) => row.judgement.sentence))]
	const refusals = [...new Set(rows.flatMap((row) => (row.refused ? [row.refused] : [])))]
	return (
		<Collapsible.Root asChild>
			<article
				className="border-t-2 border-ink py-3.5"
				tabIndex={-1}
				data-verdict
				aria-label={`${first.name}, ${rows.map((row) => row.ladderName).join(', ')}`}
			>
				<p className="flex flex-wrap items-center gap-x-2.5">
					<VerdictMark word={judgement.verdict} />
					<a
						className="font-bold hover:underline max-lg:inline-flex max-lg:min-h-[44px] max-lg:items-center"
						href={`/athletes/${first.athleteId}`}
					>
						{first.name}
					</a>{' '}
					<span className="dim">{rows.map((row) => row.ladderName.toLowerCase()).join(', ')}</span>
				</p>
				{sentences.map((sentence) => (
					<p key={sentence} className="num my-1.5 max-w-[60ch] text-[19px] leading-snug font-medium">
						{asRead(sentence)} <span className="dim text-[14px] font-normal">({sayFirmness(judgement.firmness)})</span>
					</p>
				))}
				{together && <p className="mb-1">{together.where}</p>}
				<TraceTable judgement={judgement} firedOnly />
				<Collapsible.Content>
					{rows.map((row) => (
						<div key={key(row)} className="mt-3">
							<h3>{row.ladderName}</h3>
							{together && <p className="mb-1 max-w-[60ch]">{asRead(row.judgement.sentence)}</p>}
							<TraceTable judgement={row.judgement} />
						</div>
					))}
				</Collapsible.Content>
				{[...new Set(rows.flatMap((row) => row.judgement.cautions.map((caution) => caution.sentence)))].map(
					(sentence) => (
						<p key={sentence} className="mt-2 border-l-[3px] border-ink py-0.5 pl-2.5">
							{asRead(sentence)}
						</p>
					),
				)}
				{refusals.map((refusal) => (
					<p key={refusal} className="problem mt-2" role="alert">
						{refusal}
					</p>
				))}
				<div className="mt-3 flex flex-wrap items-center gap-2">
					{mayDecide && (
						<PostForm preventScrollReset>
							{rows.map(decisionField)}
							<button className="btn btn-quiet" name="do" value="accept" data-key="a">
								{rows.some((row) => row.judgement.cautions.length > 0) ? 'Seen, accept' : 'Accept'}
							</button>
						</PostForm>
					)}
					{mayDecide && judgement.tier !== 'block' && (
						<button
							type="button"
							className="btn btn-quiet"
							data-key="o"
							aria-expanded={overruling}
							onClick={() => setOverruling(!overruling)}
						>
							Other, with a reason
						</button>
					)}
					<Collapsible.Trigger className="link min-h-[44px] px-2">all that was looked at</Collapsible.Trigger>
				</div>
				{mayDecide && judgement.tier === 'block' && (
					<p className="dim mt-1 max-w-[60ch] text-[14px]">
						A block cannot be overruled: it opens when somebody records who cleared it, or when what it waits for has
						passed.
					</p>
				)}
				{overruling && mayDecide && <OverruleForm rows={rows} />}
			</article>
		</Collapsible.Root>
	)
}

function OverruleForm({ rows }: { rows: Row[] }) {
	const id = useId()
	return (
		<PostForm preventScrollReset className="mt-2 grid max-w-[640px] gap-2 border-l-[3px] border-ink py-1 pl-3">
			{rows.map(decisionField)}
			<label className="label" htmlFor={id}>
				Your reason, kept with your name and the time
			</label>
			<input id={id} name="reason" className="input" maxLength={500} required minLength={3} autoFocus />
			<div className="flex flex-wrap gap-2">
				{rows.some((row) => row.decided && row.decided.word !== row.judgement.verdict) && (
					<button className="btn btn-quiet" name="do" value="accept" formNoValidate>
						As it was proposed
					</button>
				)}
				{(['hold', 'ease', 'advance'] as const).map((word) => (
					<button key={word} className="btn btn-quiet" name="do" value={word}>
						{word === 'hold' ? 'Hold as it was' : word === 'ease' ? 'Ease to two thirds' : 'Advance'}
					</button>
				))}
			</div>
		</PostForm>
	)
}

/** A verdict that reads well: one line, with its trace and the other way behind it. */
export function QuietVerdict({ row, mayDecide }: { row: Row; mayDecide: boolean }) {
	const { asRead } = useUnits()
	const [overruling, setOverruling] = useState(false)
	return (
		<Collapsible.Root asChild>
			<li className="rule py-1.5">
				<div className="grid grid-cols-[26px_1fr_auto] items-start gap-x-2.5 sm:grid-cols-[26px_150px_1fr_auto]">
					<span className="pt-0.5">
						<VerdictMark word={row.decided?.word ?? row.judgement.verdict} />
					</span>
					<a
						className="font-bold hover:underline max-lg:inline-flex max-lg:min-h-[44px] max-lg:items-center"
						href={`/athletes/${row.athleteId}`}
					>
						{row.name}
					</a>
					<span className="col-span-2 col-start-2 row-start-2 text-[14.5px] sm:col-span-1 sm:col-start-3 sm:row-start-1">
						{asRead(row.judgement.sentence)}
						{row.wouldNowBe && (
							<b className="block">
								Would now be {row.wouldNowBe.verdict}: {asRead(row.wouldNowBe.sentence)}
							</b>
						)}
						{row.wouldNowBe && mayDecide && (
							<PostForm preventScrollReset className="my-1">
								{decisionField(row)}
								<button className="btn btn-quiet" name="do" value="accept">
									Decide anew: {row.wouldNowBe.verdict}
								</button>
							</PostForm>
						)}
						{row.before.map((one) => (
							<span key={one.at} className="dim block">
								Decided before, {one.at}: {one.word}
								{one.reason && `. ${one.reason}`}
							</span>
						))}
						{row.decided?.reason && (
							<b className="block">
								Decided: {row.decided.word}. {row.decided.reason}
							</b>
						)}
						{row.refused && (
							<span className="problem block" role="alert">
								{row.refused}
							</span>
						)}
					</span>
					<Collapsible.Trigger
						className="link min-h-[30px] max-lg:min-h-[44px] px-1"
						aria-label={`Why: ${row.name}, ${row.ladderName}`}
					>
						why
					</Collapsible.Trigger>
				</div>
				<Collapsible.Content className="pb-2 sm:pl-[36px]">
					<TraceTable judgement={row.judgement} />
					{mayDecide && row.judgement.tier !== 'block' && (
						<button
							type="button"
							className="btn btn-quiet mt-2"
							aria-expanded={overruling}
							onClick={() => setOverruling(!overruling)}
						>
							{row.decided ? 'Take it back: decide otherwise' : 'Other, with a reason'}
						</button>
					)}
					{overruling && <OverruleForm rows={[row]} />}
				</Collapsible.Content>
			</li>
		</Collapsible.Root>
	)
}
