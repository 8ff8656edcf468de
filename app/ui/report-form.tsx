import { useState } from 'react'
import { REGIONS, REGION_NAMES, SIDES } from '#core/vocabulary/words'
import { PostForm } from './post-form'

/** What can be said, in the order of how quickly somebody has to act. */
const KINDS = [
	['pain', 'Pain'],
	['soreness', 'Sore, both sides, dull, after new work'],
	['unwell', 'Unwell: fever, illness'],
	['head', 'Head: any blow, strong pain there'],
	['chest', 'Chest pain, a faint, breath that does not settle'],
] as const
type Kind = (typeof KINDS)[number][0]

/** What a report means there and then, before it is made. */
const MEANS: Partial<Record<Kind, string>> = {
	soreness: 'Noted for three days. It closes nothing.',
	unwell: 'Nothing high, shock or maximal until well again, tomorrow at the earliest.',
	head: 'Get professional help now. Everything is closed until a doctor has cleared it.',
	chest: 'Get professional help now. Everything is closed until a doctor has cleared it.',
}

/** Says what is wrong with a body away from the field: of one athlete, or of one that is picked. */
export function ReportForm({
	athletes,
	problem,
}: {
	/** Who may be picked; absent where the page is about one. */
	athletes?: { id: string; name: string }[]
	problem: string | undefined
}) {
	const [kind, setKind] = useState<Kind>('pain')
	const means = MEANS[kind]
	return (
		<PostForm preventScrollReset className="grid max-w-[440px] grid-cols-2 gap-2 py-2">
			<input type="hidden" name="do" value="report" />
			{athletes && (
				<select name="athlete" className="input col-span-2" aria-label="Who" defaultValue="" required>
					<option value="" disabled>
						Who
					</option>
					{athletes.map((one) => (
						<option key={one.id} value={one.id}>
							{one.name}
						</option>
					))}
				</select>
			)}
			<select
				name="kind"
				className="input col-span-2"
				aria-label="What it is"
				value={kind}
				onChange={(event) => setKind(event.target.value as Kind)}
			>
				{KINDS.map(([id, words]) => (
					<option key={id} value={id}>
						{words}
					</option>
				))}
			</select>
			{(kind === 'pain' || kind === 'soreness') && (
				<select
					name="region"
					className={`input ${kind === 'pain' ? '' : 'col-span-2'}`}
					aria-label="Where it hurts"
					defaultValue=""
				>
					<option value="">Where</option>
					{REGIONS.map((region) => (
						<option key={region} value={region}>
							{REGION_NAMES[region]}
						</option>
					))}
				</select>
			)}
			{kind === 'pain' && (
				<>
					<select name="side" className="input" aria-label="Side">
						{[...SIDES, 'both'].map((side) => (
							<option key={side}>{side}</option>
						))}
					</select>
					<select name="score" className="input" aria-label="How much, 0 to 10" defaultValue="">
						<option value="">How much, 0 to 10</option>
						{Array.from({ length: 11 }, (_, score) => (
							<option key={score}>{score}</option>
						))}
					</select>
					<select name="moment" className="input" aria-label="When" defaultValue="next-day">
						<option value="before">before training</option>
						<option value="during">while training</option>
						<option value="next-day">the day after</option>
					</select>
					<label className="col-span-2 flex min-h-[44px] items-center gap-2 text-[14px]">
						<input type="checkbox" name="redFlag" className="size-5 accent-act" />
						Sharp, gives way, locks or is numb
					</label>
				</>
			)}
			<input
				name="note"
				className="input col-span-2"
				placeholder="In your own words"
				aria-label="Note"
				maxLength={500}
			/>
			{means && (
				<p className={`col-span-2 ${kind === 'head' || kind === 'chest' ? 'font-bold text-attn' : ''}`}>{means}</p>
			)}
			{problem && (
				<p className="problem col-span-2" role="alert">
					{problem}
				</p>
			)}
			<button className="btn col-span-2 justify-self-start">Report</button>
		</PostForm>
	)
}
