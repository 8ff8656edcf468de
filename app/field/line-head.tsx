import type { DoseLeft } from '#core/field/dose-left'
import { shortDay } from './short-day'
import type { LineProgress } from '#core/field/line-progress'
import type { FieldAthlete } from '#core/field/pack'
import { lineAt } from '#core/field/complex'
import { expectLabel, expectedAt, gatesFor, slotsOf } from '#core/field/slots'
import { REGION_NAMES } from '#core/vocabulary/words'
import { markEvidence } from '#core/judge/gather-exposure'
import { writeMark, writePercent } from '#core/words/write-numbers'
import { sentences } from '#core/words/sentences'
import { sayEvent, shortName } from '#core/field/say-event'
import { useUnits } from './units'

interface Props {
	progress: LineProgress
	athlete: FieldAthlete
	dose: DoseLeft
	/** The drill swapped in, by name. */
	drillName: string | null
	gates: readonly number[]
	onLine: readonly LineProgress[]
	nameOf: (id: string) => string
	onPick: (athleteId: string) => void
	onMark: (id: string) => void
	onAthlete: () => void
}

const MARK =
	'num block min-h-[64px] w-full border-b-[3px] border-ink px-1 pb-1 text-left text-[20px] leading-tight font-semibold'
const SMALL = { fontFamily: 'var(--font-text)' }

/** A longer name is set smaller, so that it is read whole on a small phone. */
const LONG_NAME = 13

/** Who is on the line, what they do, how much of the day is left, and the last marks; a mark opens with a tap. */
export function LineHead({
	progress,
	athlete,
	dose,
	drillName,
	gates,
	onLine,
	nameOf,
	onPick,
	onMark,
	onAthlete,
}: Props) {
	const { asRead } = useUnits()
	const { line, marks, offBest } = progress
	const recent = marks.slice(-3)
	const last = slotsOf(line, gatesFor(line, gates)).at(-1)
	const worry = athlete.worries.find((one) => one.drillId === line.drillId)
	return (
		<section data-at="head" className="px-4 pt-2" aria-label="On the line">
			{onLine.length > 1 && (
				<div className="mb-2 flex gap-1.5" role="group" aria-label="Lanes">
					{onLine.map((one, index) => (
						<button
							key={one.line.id}
							type="button"
							className="num min-h-[64px] min-w-0 flex-1 truncate border border-ink px-2 text-[16px] aria-pressed:bg-ink aria-pressed:text-paper"
							aria-pressed={one === progress}
							onClick={() => onPick(one.line.athleteId)}
						>
							{index + 1} {shortName(nameOf(one.line.athleteId))}
						</button>
					))}
				</div>
			)}
			<div className="flex items-stretch justify-between gap-3">
				<button type="button" className="min-h-[56px] min-w-0 flex-1 text-left" onClick={onAthlete}>
					<h1
						className={`truncate ${onLine.length > 1 ? 'text-[20px]' : athlete.name.length > LONG_NAME ? 'text-[23px]' : 'text-[30px]'} underline decoration-chalk decoration-2 underline-offset-4`}
						style={{ fontStretch: '100%' }}
					>
						{athlete.name}
					</h1>
					<span className="block truncate text-[15px]">
						{asRead(
							drillName
								? `${drillName}, instead of ${line.words}`
								: progress.next.piece !== undefined
									? `${progress.next.piece} of ${line.pieces!.length}: ${line.words}`
									: `${line.words}, ${line.dose.sets}×${line.dose.reps}${progress.worn === false ? ', this one free' : ''}`,
						)}
						<span className="sr-only">: swap, end, group</span>
					</span>
				</button>
				<div className="shrink-0 text-right">
					<span className="num block text-[17px] leading-[34px] font-semibold" data-testid="rep">
						{progress.finished
							? `${progress.repsDone} of ${progress.planned}`
							: progress.next.piece !== undefined
								? `round ${progress.next.setNo} of ${progress.planned}`
								: line.dose.sets > 1
									? `set ${progress.next.setNo} of ${line.dose.sets}, rep ${progress.next.repNo}`
									: `rep ${progress.next.repNo} of ${line.dose.reps}`}
					</span>
					<DoseTape label="contacts" done={dose.contacts.done} planned={dose.contacts.planned} />
					<DoseTape label="fast m" done={dose.fastMetres.done} planned={dose.fastMetres.planned} />
				</div>
			</div>
			{progress.over && (
				<p className="mt-1 border-l-4 border-attn pl-3 text-[17px] font-bold text-attn" role="alert">
					Over today: {progress.over}. Tap the name for another drill.
				</p>
			)}
			{(athlete.spare.length > 0 || worry) && (
				<p className="mt-1 border-l-4 border-ink pl-3 text-[15px] font-semibold">
					{athlete.spare.length > 0 && `Spare: ${athlete.spare.join(', ')}. `}
					{worry && `Does not trust this one: ${REGION_NAMES[worry.region]}. Tap the name for another drill.`}
				</p>
			)}
			{line.own && line.own.length > 0 && !progress.swap && (
				<p className="mt-1 text-[16px] leading-snug font-semibold">{asRead(line.own.join(' '))}</p>
			)}
			{line.lastTime && !progress.swap && (
				<p className="mt-1 text-[15px] leading-snug">
					<b>Last time</b>, {shortDay(line.lastTime.day)}: {asRead(line.lastTime.words.join('; '))}
				</p>
			)}
			{line.cautions.length > 0 && progress.repsDone === 0 && (
				// One line of it, so that the pad stays in reach of a thumb; a tap opens the rest.
				<details className="group mt-1 border-l-4 border-ink pl-3 text-[14px]">
					<summary className="flex min-h-[44px] items-center gap-2 sm:min-h-0">
						<span className="line-clamp-1 group-open:line-clamp-none">{asRead(sentences(line.cautions))}</span>
						<span className="link flex-none group-open:hidden">all</span>
					</summary>
				</details>
			)}
			<ol className="mt-1.5 flex list-none gap-1" aria-label="Marks so far">
				{recent.map((mark) => {
					const ofMark = lineAt(line, mark.piece)
					const evidence = markEvidence(mark, ofMark.parameters.distanceM)
					const off = offBest.get(mark.id)
					return (
						<li key={mark.id} className="min-w-0 flex-1">
							<button type="button" className={MARK} onClick={() => onMark(mark.id)}>
								<span className="sr-only">Mark </span>
								{evidence ? asRead(writeMark(evidence)) : asRead(sayEvent(mark))}
								<small className="block text-[13px] font-normal" style={SMALL}>
									{off
										? off.percent === 0
											? off.isBest
												? 'best'
												: 'best then'
											: `+${writePercent(off.percent)}`
										: '\u00a0'}
								</small>
								<span className="sr-only">: correct it</span>
							</button>
						</li>
					)
				})}
				{!progress.finished && (
					<li className="num min-w-0 flex-1 border-b-[3px] border-dashed border-ink px-1 pb-1 text-[20px] leading-tight text-ink-2">
						—
						<small className="block text-[13px]" style={SMALL}>
							{last
								? asRead(expectLabel(expectedAt(last, line, line.bests.gate, athlete.curve), last.unit))
								: 'next set'}
						</small>
					</li>
				)}
			</ol>
		</section>
	)
}

/** A tape as wide as the plan, filled as far as it is done. */
function DoseTape({ label, done, planned }: { label: string; done: number; planned: number }) {
	if (planned === 0 && done === 0) return null
	return (
		<span className="dose-tape flex items-center justify-end gap-1.5 text-[13px] leading-[15px]">
			{label}{' '}
			<b className="num">
				{done}/{planned}
			</b>
			<i className="relative inline-block h-[9px] w-[52px] border border-ink" aria-hidden="true">
				<i
					className="absolute inset-y-0 left-0 bg-ink"
					style={{ width: `${Math.min(100, (100 * done) / Math.max(1, planned))}%` }}
				/>
			</i>
		</span>
	)
}
