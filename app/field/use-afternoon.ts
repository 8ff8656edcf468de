import { useCallback, useMemo, useRef, useState } from 'react'
import { landed, press } from '#core/field/session/press'
import { readField } from '#core/field/session/read-field'
import { type Cursor, type Stand, opened, standOf } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'
import type { FieldSheet } from '#core/field/pack'
import type { SessionLog } from './use-session-log'

export interface Afternoon {
	stand: Stand
	/** Does what was tapped; true once it is on the device, or when there was nothing to keep. */
	tap: (tap: Tap) => Promise<boolean>
	/** Why the last tap could not be kept. */
	problem: string | null
}

const FULL =
	'This device could not keep that: its storage may be full. Nothing was saved; write it down and free some space.'

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
	const [problem, setProblem] = useState<string | null>(null)
	const writing = useRef(false)
	const stand = useMemo(() => standOf(field, cursor), [field, cursor])
	const tap = useCallback(
		async (one: Tap): Promise<boolean> => {
			const pressed = press(stand, one)
			if (pressed.writes.length === 0) {
				setCursor(landed(stand, pressed, []))
				return true
			}
			// A second tap while the first is being written is the same tap.
			if (writing.current) return false
			writing.current = true
			try {
				const events = await write(pressed.writes)
				const next = landed(stand, pressed, events)
				setProblem(null)
				onKept()
				// Whoever looked elsewhere in the meantime stays there.
				setCursor((now: Cursor) => (now === stand.cursor ? next : { ...now, moves: next.moves, hurt: next.hurt }))
				return true
			} catch {
				setProblem(FULL)
				return false
			} finally {
				writing.current = false
			}
		},
		[stand, write, onKept],
	)
	return { stand, tap, problem }
}
