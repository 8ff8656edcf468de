import { useEffect, useLayoutEffect, useState } from 'react'
import { type Run, STANDING_WATCH, assignCrossings, nextTap, tapWatch, timesOf } from '#core/field/session/stopwatch'
import { typicalErrorOf } from '#core/noise/typical-error'
import { writeDistance } from '#core/words/units'

interface Props {
	/** Who starts together: athlete and name, lane by lane. */
	runners: readonly { id: string; name: string }[]
	/** Distances that are timed, the finish last. */
	places: readonly number[]
	disabled: boolean
	undoLabel: string | null
	/** The button is pressed, on the page's clock; in its turn it comes back by what `onWatch` was told. */
	onPress: (atMs: number) => void
	onWatch: (pressed: ((atMs: number) => void) | null) => void
	/** Told when the watch is started and when it stands again. */
	onBusy: (busy: boolean) => void
	/** @param finishedMs when the last of them crossed, on the page's clock */
	onRuns: (runs: readonly Run[], finishedMs: number) => void
	onMissed: () => void
	onUndo: () => void
	onType: () => void
}

const SIDE = 'num min-h-[64px] border border-ink px-1 text-[15px] leading-tight font-semibold disabled:text-ink-2'
/** How far apart a thumb's times of one and the same run lie, s. */
const ERROR_S = typicalErrorOf('sprint', 'stopwatch') ?? 0.2

/** One button under the thumb: start, and stop for everybody who crosses. Who was who is said afterwards, and only where several ran. */
export function StopwatchPad({
	runners,
	places,
	disabled,
	undoLabel,
	onPress,
	onWatch,
	onBusy,
	onRuns,
	onMissed,
	onUndo,
	onType,
}: Props) {
	const [watch, setOwnWatch] = useState(STANDING_WATCH)
	const setWatch = (next: typeof watch) => {
		setOwnWatch(next)
		onBusy(next.startedMs !== null)
	}
	const [named, setNamed] = useState<(string | null)[]>([])
	const count = runners.length
	const next = nextTap(watch, places, count)
	const times = timesOf(watch, places, count)
	const running = watch.startedMs !== null && times === null
	const keep = (runs: readonly Run[], taps: readonly number[]) => {
		setWatch(STANDING_WATCH)
		setNamed([])
		onRuns(runs, watch.startedMs! + taps.at(-1)! * 1000)
	}
	const press = (atMs: number) => {
		const after = tapWatch(watch, atMs, places, count)
		setWatch(after)
		const done = timesOf(after, places, count)
		if (!done) return
		if ('vibrate' in navigator) navigator.vibrate(30)
		if (count === 1)
			keep(
				[{ athleteId: runners[0]!.id, splits: places.map((distanceM, index) => ({ distanceM, timeS: done[index]! })) }],
				done,
			)
	}
	useLayoutEffect(() => {
		onWatch(press)
		return () => onWatch(null)
	})
	useEffect(() => {
		const onKey = (event: KeyboardEvent) => {
			const { target } = event
			if (event.key !== ' ' || event.repeat || disabled || times) return
			if (target instanceof HTMLElement && target.closest('input, textarea, select, [role="dialog"]')) return
			event.preventDefault()
			onPress(event.timeStamp)
		}
		document.addEventListener('keydown', onKey)
		return () => document.removeEventListener('keydown', onKey)
	})
	if (times && count > 1) {
		const name = (index: number, id: string) => {
			const now = [...named]
			now[index] = id
			setNamed(now)
			const runs = assignCrossings(
				times,
				places.at(-1)!,
				runners.map((one) => one.id),
				now,
			)
			if (runs) keep(runs, times)
		}
		const at = times.findIndex((_, index) => (named[index] ?? null) === null)
		return (
			<div
				data-at="pad"
				className="grid flex-1 content-start gap-2 border-y border-chalk p-3"
				role="group"
				aria-label="Who was it"
			>
				<p className="text-[18px]">
					Who came {at === 0 ? 'first' : `as number ${at + 1}`}, <b className="num">{times[at]!.toFixed(2)} s</b>?
				</p>
				{runners
					.filter(({ id }) => !named.includes(id))
					.map(({ id, name: who }) => (
						<button key={id} type="button" className="btn min-h-[64px] text-[20px]" onClick={() => name(at, id)}>
							{who}
						</button>
					))}
				<button type="button" className={SIDE} onClick={() => (setWatch(STANDING_WATCH), setNamed([]))}>
					Throw these {count} times away
				</button>
			</div>
		)
	}
	return (
		<div
			data-at="pad"
			className="grid flex-1 grid-cols-[1fr_96px] grid-rows-[1fr_auto] gap-2 border-y border-chalk p-2"
			role="group"
			aria-label="Stopwatch"
		>
			<button
				type="button"
				className={`num min-h-[150px] touch-none border-2 border-ink text-[34px] font-semibold select-none disabled:text-ink-2 ${running ? 'bg-act text-act-ink' : 'bg-paper'}`}
				disabled={disabled}
				// The moment the thumb comes down, not the one it is lifted; a screen reader's press has no such moment.
				onPointerDown={(event) => event.isPrimary && onPress(event.timeStamp)}
				onClick={(event) => event.detail === 0 && onPress(event.timeStamp)}
			>
				{next.kind === 'start'
					? 'Start'
					: next.kind === 'place'
						? writeDistance(next.distanceM)
						: `Number ${next.nth} crosses`}
				<span className="block text-[17px] font-medium">
					{running ? (
						<Running key={watch.startedMs} sinceMs={watch.startedMs!} taps={watch.taps} />
					) : (
						`${count > 1 ? `${count} start together` : places.length > 1 ? `${places.length} places` : 'tap again at the finish'}`
					)}
				</span>
			</button>
			<div className="grid grid-rows-4 gap-2">
				<button type="button" className={SIDE} onClick={onUndo} disabled={undoLabel === null}>
					Undo{undoLabel && <span className="block text-[13px] font-normal">{undoLabel}</span>}
				</button>
				<button
					type="button"
					className={SIDE}
					onClick={() => {
						setWatch(STANDING_WATCH)
						if (!running) onMissed()
					}}
					disabled={disabled}
				>
					{running ? 'Stop, no time' : 'Missed rep'}
				</button>
				<button type="button" className={`${SIDE} row-span-2`} onClick={onType}>
					Type it
				</button>
			</div>
			<p className="col-span-2 text-[14px]">
				Two runs alike differ by {ERROR_S.toFixed(2)} s by thumb alone, whatever the hundredths say. The space bar is
				the button, too.
			</p>
		</div>
	)
}

/** The time as it runs, for the eye alone; what is kept is when the thumb came down. */
function Running({ sinceMs, taps }: { sinceMs: number; taps: readonly number[] }) {
	const [now, setNow] = useState(sinceMs)
	useEffect(() => {
		const timer = setInterval(() => setNow(performance.now()), 100)
		return () => clearInterval(timer)
	}, [])
	return (
		<>
			{Math.max(0, (now - sinceMs) / 1000).toFixed(1)} s
			{taps.length > 0 && ` · ${taps.map((s) => s.toFixed(2)).join(' · ')}`}
		</>
	)
}
