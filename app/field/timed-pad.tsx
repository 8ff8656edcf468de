import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import type { OnLine } from '#core/field/session/stand'
import type { Run } from '#core/field/session/stopwatch'
import type { Tap } from '#core/field/session/taps'
import { type Question, expectedAt, gatesFor, questionAbout, showRead, slotsOf, valueOf } from '#core/field/slots'
import { ownOnly } from '#core/field/strange'
import { padParts, readParts } from '#core/measure/quantity'
import { readDigits } from '#core/measure/read-digits'
import { type Leg, SIDES, METHODS_OF, METHOD_NAMES, type Method } from '#core/vocabulary/words'
import { AdviceBox } from './advice-box'
import { NumberPad } from './number-pad'
import type { PadKey } from './presses'
import { StopwatchPad } from './stopwatch-pad'
import { sayEvent } from '#core/field/say-event'
import { useUnits } from './units'

/** How marks were taken last, kind by kind: it rarely changes within a session. */
const lastMethods: Record<keyof typeof METHODS_OF, Method> = {
	sprint: 'gate',
	contact: 'mat',
	height: 'mat',
	distance: 'tape',
}
/** Whoever types what another stopwatch says goes on typing. */
let typesTimes = false
/** Whoever times only the whole distance starts there the next time too. */
let wholeOnly = false

interface Props {
	shown: OnLine
	/** Who starts together, whoever is shown among them. */
	together: readonly { id: string; name: string }[]
	/** This device's clock, put right by the server's. */
	clock: () => number
	gates: readonly number[]
	windMps: number | null
	ready: boolean
	undoLabel: string | null
	onTap: (tap: Tap) => void
	onKey: (key: PadKey) => void
	/** Told what this pad does with a key; null once it is gone. */
	onPad: (press: ((key: PadKey) => void) | null) => void
	/** Told while something is typed, asked or timed here that is not saved. */
	onBusy: (busy: boolean) => void
	followUp: React.ReactNode
}

/** The numbers of one rep: split by split, read by what is expected; what would surprise is asked about once. */
export function TimedPad({
	shown: { progress, athlete, drill, advice },
	together,
	clock,
	gates,
	windMps,
	ready,
	undoLabel,
	onTap,
	onKey,
	onPad,
	onBusy,
	followUp,
}: Props) {
	const { line } = progress
	const athleteId = athlete.id
	const { asRead, units } = useUnits()
	// The mark before, to repeat.
	const same = progress.marks.at(-1)
	const kind = line.logs === 'done' ? 'sprint' : line.logs
	const slots = slotsOf(line, gatesFor(line, gates))
	const [digits, setDigits] = useState<string[]>([])
	const [at, setAt] = useState(wholeOnly ? slots.length - 1 : 0)
	const [method, setMethod] = useState<Method>(lastMethods[kind])
	const [chosen, setChosen] = useState<Leg | null>(null)
	const side = chosen ?? progress.side ?? undefined
	const [odd, setOdd] = useState<Question | null>(null)
	const [typing, setTyping] = useState(typesTimes)
	/** Who was there when the watch was started; null while it stands. */
	const [timed, setTimed] = useState<typeof together | null>(null)
	const watched = kind === 'sprint' && method === 'stopwatch' && !typing && odd === null
	// A length in feet and inches is one number, typed in two.
	const parts = slots.length === 1 ? padParts(slots[0]!.unit, units) : []
	const boxes = parts.length > 0 ? parts.map(({ unit }) => ({ name: slots[0]!.name, unit })) : slots
	const active = Math.min(at, boxes.length - 1)
	const best = kind === 'sprint' ? line.bests[method] : undefined
	const reads =
		parts.length > 0
			? [readParts(parts, digits)]
			: slots.map((slot, index) => readDigits(digits[index] ?? '', expectedAt(slot, line, best, athlete.curve)))
	const complete = kind === 'sprint' ? reads.at(-1) !== null : reads.every((value) => value !== null)

	const type = (change: (text: string) => string) => {
		setOdd(null)
		// What is typed is for the side that is shown now, whatever others log meanwhile.
		if (progress.side && side) setChosen(side)
		setDigits(
			boxes.map((_, index) => (index === active ? change(digits[index] ?? '').slice(0, 7) : (digits[index] ?? ''))),
		)
	}
	/** @param kept somebody looked at what can hardly be, and it is what was seen */
	const keep = (numbers: (number | null)[] = reads, kept = false) => {
		wholeOnly = kind === 'sprint' && slots.length > 1 && numbers[0] === null
		const label = slots
			.flatMap((slot, index) =>
				numbers[index] === null || (kind === 'sprint' && index < slots.length - 1)
					? []
					: [asRead(`${showRead(numbers[index]!, slot)} ${slot.unit}`)],
			)
			.join(', ')
		onTap({
			tap: 'mark',
			athleteId,
			measured: {
				...valueOf(
					line,
					slots,
					numbers,
					{ sprint: method, contact: method, height: method, distance: method },
					windMps,
				),
				...(kept ? { kept: true as const } : {}),
			},
			label,
			side,
		})
	}
	const isTyped = (box: number) => (parts.length > 0 ? (digits[box] ?? '') !== '' : reads[box] !== null)
	const save = () => {
		if (!complete) {
			if (isTyped(active) && active < boxes.length - 1) setAt(active + 1)
			return
		}
		const question = questionAbout(ownOnly(progress), drill, athlete.level, method, slots, reads, best)
		if (question && odd?.words !== question.words) return setOdd(question)
		keep(reads, question?.aside)
	}
	const run = (runs: readonly Run[], finishedMs: number) => {
		const [only] = runs
		const numbers = slots.map(({ distanceM }) => only?.splits.find((one) => one.distanceM === distanceM)?.timeS ?? null)
		const question =
			runs.length === 1
				? questionAbout(ownOnly(progress), drill, athlete.level, method, slots, numbers, line.bests[method])
				: null
		if (question) {
			setDigits(numbers.map((value) => (value === null ? '' : value.toFixed(2))))
			return setOdd(question)
		}
		const at = new Date(clock() - (performance.now() - finishedMs)).toISOString()
		onTap({ tap: 'runs', runs, at, windMps })
	}
	const blank = digits.every((text) => text === '')
	const sameLabel =
		blank && same && same.kind === line.logs && !progress.finished && kind !== 'sprint' ? asRead(sayEvent(same)) : null
	const press = (key: PadKey) => {
		switch (key.key) {
			case 'digit':
				return type((text) => `${text}${key.digit}`)
			case 'delete':
				return type((text) => text.slice(0, -1))
			case 'save':
				return save()
			case 'same':
				return same && key.label === sameLabel
					? onTap({
							tap: 'mark',
							athleteId,
							measured: { kind: same.kind, value: same.value },
							label: sameLabel,
							side,
						})
					: undefined
			case 'missed':
			case 'untimed':
				return onTap({ tap: key.key, athleteId, side })
			case 'undo':
				return onTap({ tap: 'undo' })
			case 'side':
				return setChosen(key.side === side && line.sided === 'plant' ? null : key.side)
			case 'box':
				return setAt(key.at)
			case 'watch':
				return watch.current?.(key.atMs)
		}
	}
	const watch = useRef<((atMs: number) => void) | null>(null)
	useLayoutEffect(() => {
		onPad(press)
		return () => onPad(null)
	})
	const busy = !blank || odd !== null || timed !== null
	useEffect(() => {
		onBusy(busy)
		return () => onBusy(false)
	}, [busy, onBusy])
	return (
		<>
			{odd ? (
				<div
					data-at="say"
					className="mx-4 mt-2 border-2 border-ink px-3 py-2 text-[16px] leading-snug"
					role="status"
					aria-label="Suggestion"
				>
					<p>
						<b>{asRead(odd.words)}</b> Keep it, fix it{kind === 'sprint' && ', or was it a false start'}?
					</p>
					<div className="mt-1.5 flex gap-1.5">
						{odd.likely && (
							<button
								type="button"
								className="btn num min-h-[64px] flex-1 whitespace-nowrap"
								onClick={() => keep(odd.likely!.reads)}
							>
								{asRead(odd.likely.label)}
							</button>
						)}
						<button
							type="button"
							className={`btn min-h-[64px] flex-1 ${odd.likely ? 'btn-quiet' : ''}`}
							onClick={() => keep(reads, odd.aside)}
						>
							Keep
						</button>
						<button
							type="button"
							className="btn btn-quiet min-h-[64px] flex-1"
							onClick={() => {
								setOdd(null)
								setDigits([])
							}}
						>
							Fix
						</button>
						{kind === 'sprint' && (
							<button
								type="button"
								className="btn btn-quiet min-h-[64px] flex-1"
								onClick={() => onTap({ tap: 'missed', athleteId, reason: 'false-start', side })}
							>
								False start
							</button>
						)}
					</div>
				</div>
			) : (
				<AdviceBox advice={advice} onAct={() => onTap({ tap: 'advice', athleteId })} />
			)}
			<div data-at="numbers">
				{line.sided && !progress.swap && (
					<div
						className="flex items-center gap-1.5 px-4 pt-2"
						role="group"
						aria-label={line.sided === 'plant' ? 'Foot that was planted' : 'Side'}
					>
						{line.sided === 'plant' && <span className="text-[14px]">planted</span>}
						{SIDES.map((one) => (
							<button
								key={one}
								type="button"
								className="num min-h-[64px] flex-1 border border-ink text-[19px] font-semibold aria-pressed:bg-ink aria-pressed:text-paper"
								aria-pressed={side === one}
								onClick={() => onKey({ key: 'side', side: one })}
							>
								{one}
							</button>
						))}
					</div>
				)}
				<div className="flex items-end justify-between gap-2 px-4 pt-2 pb-1">
					{watched && (
						<span className="num self-center text-[19px] font-semibold">
							{together.length > 1 ? `${together.length} together` : slots.map(({ name }) => name).join(', ')}
						</span>
					)}
					{(watched ? [] : boxes).map((box, index) => (
						<button
							key={`${box.name} ${box.unit}`}
							type="button"
							className={`num min-h-[64px] min-w-0 flex-1 border-b-[3px] text-left leading-none ${index === active ? 'border-act' : 'border-transparent'}`}
							onClick={() => onKey({ key: 'box', at: index })}
							aria-pressed={index === active}
						>
							<span
								className={`block truncate font-semibold ${boxes.length > 2 ? 'text-[26px]' : boxes.length > 1 ? 'text-[36px]' : 'text-[50px]'}`}
								data-testid={`value-${index}`}
							>
								{parts.length > 0 || reads[index] === null
									? digits[index] || '–'
									: showRead(reads[index]!, slots[index]!)}{' '}
								<span className="text-[17px] font-medium">{box.unit}</span>
							</span>
							<span className="block pt-1 text-[14px]" style={{ fontFamily: 'var(--font-text)' }}>
								{box.name}
							</span>
						</button>
					))}
					<label className="grid w-[118px] shrink-0 text-[13px]">
						by
						<select
							className="min-h-[48px] w-full border border-ink bg-paper px-1 text-[15px]"
							value={method}
							onChange={(event) => {
								lastMethods[kind] = event.target.value as Method
								setMethod(lastMethods[kind])
								setTimed(null)
							}}
							aria-label="Taken by"
						>
							{METHODS_OF[kind].map((one) => (
								<option key={one} value={one}>
									{METHOD_NAMES[one]}
								</option>
							))}
						</select>
					</label>
				</div>
			</div>
			{watched ? (
				<StopwatchPad
					key={(timed ?? together).map(({ id }) => id).join()}
					runners={timed ?? together}
					places={slots.map(({ distanceM }) => distanceM ?? 0)}
					disabled={!ready || (progress.finished && timed === null)}
					undoLabel={undoLabel}
					onBusy={(on) => setTimed(on ? together : null)}
					onPress={(atMs) => onKey({ key: 'watch', atMs })}
					onWatch={(pressed) => {
						watch.current = pressed
					}}
					onRuns={run}
					onMissed={() => onTap({ tap: 'missed', athleteId, side })}
					onUndo={() => onTap({ tap: 'undo' })}
					onType={() => {
						setTimed(null)
						setTyping((typesTimes = true))
					}}
				/>
			) : (
				<NumberPad
					disabled={!ready || (progress.finished && !complete && blank)}
					onKey={onKey}
					undoLabel={undoLabel}
					saveLabel={complete ? 'Save' : active < boxes.length - 1 ? 'Next' : 'Save'}
					same={sameLabel}
				/>
			)}
			{kind === 'sprint' && method === 'stopwatch' && typing && (
				<button
					type="button"
					className="min-h-[48px] px-4 text-left text-[15px] underline underline-offset-2"
					onClick={() => setTyping((typesTimes = false))}
				>
					Use the stopwatch here
				</button>
			)}
			{followUp}
		</>
	)
}
