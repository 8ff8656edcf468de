import { useCallback, useEffect, useLayoutEffect, useMemo, useReducer, useRef, useState } from 'react'
import { landed, press } from '#core/field/session/press'
import { readField } from '#core/field/session/read-field'
import { type Stand, opened, standOf } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'
import type { FieldSheet } from '#core/field/pack'
import { type PadKey, keyPress, tapPress } from './presses'
import { Turns } from './turns'
import type { SessionLog } from './use-session-log'

export interface Afternoon {
	stand: Stand
	/** Does what was tapped in its turn; true once it is on the device, or when there was nothing to keep. */
	tap: (tap: Tap) => Promise<boolean>
	/** Does what a key of a pad does, in its turn. */
	key: (key: PadKey, press: () => void) => void
	/** Whether a press is on its way, and whether a device has moved the line just now. */
	turns: Pick<Turns, 'idle' | 'unseen'>
	/** Counts what was logged here: what is typed is for one of them, whatever other phones log meanwhile. */
	rep: number
	/** The last tap takes long to be on the device. */
	slow: boolean
	/** Why the last tap could not be kept. */
	problem: string | null
}

const FULL =
	'This device could not keep that: its storage may be full. Nothing was saved; write it down and free some space.'
/** From here on the screen says that it waits for the device, ms [our setting]. */
const SLOW_MS = 400

/** The afternoon on this phone: the core says what a tap comes to, the log keeps it, and only then the screen moves. */
export function useAfternoon(
	log: SessionLog,
	sheet: FieldSheet,
	deviceId: string,
	lanes: number,
	settled: ReadonlySet<string>,
	/** A tap is on the device. */
	onKept: () => void,
): Afternoon {
	const { all, current, limits, write } = log
	const field = useMemo(
		() => readField({ sheet, all, current, limits, settled, lanes, deviceId }),
		[sheet, all, current, limits, settled, lanes, deviceId],
	)
	const [cursor, setCursor] = useState(() => opened(sheet))
	const [rep, repLogged] = useReducer((count: number) => count + 1, 0)
	const [problem, setProblem] = useState<string | null>(null)
	const [slow, setSlow] = useState(false)
	const stand = useMemo(() => standOf(field, cursor), [field, cursor])
	const shown = useRef(stand)
	useLayoutEffect(() => {
		shown.current = stand
	}, [stand])
	const [drawing, redraw] = useReducer((count: number) => count + 1, 0)
	const [turns] = useState(() => new Turns(redraw))
	useEffect(() => turns.drawn(), [turns, drawing])

	const act = useCallback(
		async (one: Tap): Promise<boolean> => {
			const seen = shown.current
			const pressed = press(seen, one)
			if (pressed.writes.length === 0) {
				setCursor(landed(seen, pressed, []))
				return true
			}
			turns.keeping(one.tap === 'reading')
			const waits = setTimeout(() => setSlow(true), SLOW_MS)
			let kept = false
			try {
				const events = await write(pressed.writes)
				kept = true
				const next = landed(seen, pressed, events)
				// What was typed while a device logged is about whom it was typed for.
				const stays = one.tap === 'reading' && turns.ahead
				setCursor(stays ? { ...next, athleteId: seen.shown?.athlete.id ?? null } : next)
				if (!stays && events.some(({ type }) => type === 'mark')) repLogged()
				setProblem(null)
				onKept()
			} catch {
				setProblem(FULL)
			} finally {
				clearTimeout(waits)
				setSlow(false)
				turns.over(kept)
			}
			return kept
		},
		[turns, write, onKept],
	)
	const tap = useCallback(
		(one: Tap) =>
			new Promise<boolean>((done) => {
				const drop = () => done(false)
				const { what, about } = tapPress(one)
				if (!turns.press(what, () => void act(one).then(done), about, drop)) drop()
			}),
		[turns, act],
	)
	const key = useCallback(
		(one: PadKey, pressed: () => void) => {
			const { what, about } = keyPress(one)
			turns.press(what, pressed, about)
		},
		[turns],
	)
	return { stand, tap, key, turns, rep, slow, problem }
}
