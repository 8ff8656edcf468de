import { MeasureError, inBounds } from '../measure-error'
import { type Rebound, rebound } from '../jump/rebound'
import { FPS_BOUNDS } from './film-duration'

/** A frame in which a foot first touches the ground, or first has left it. */
export interface FilmMark {
	kind: 'touchdown' | 'toe-off'
	/** From 0. */
	frame: number
	side?: 'left' | 'right'
}

export interface FilmContact {
	touchdownFrame: number
	toeOffFrame: number
	side: 'left' | 'right' | null
	contactTimeS: number
	/** To the next touchdown; null for the last contact. */
	flightTimeS: number | null
	/** One contact and one flight; null for the last contact or a flight too long to be a jump. */
	rebound: Rebound | null
	/** Steps a second, touchdown to touchdown; null for the last contact. */
	stepFrequencyHz: number | null
}

/** Frames to seconds at the rate it was filmed, whatever rate the file plays at. */
const secondsOf = (frames: number, fps: number) => frames / fps

/**
 * Contacts and flights from marked frames. Touchdowns and toe-offs must take turns, beginning with a
 * touchdown; a last touchdown without a toe-off closes the flight before it.
 *
 * @param marks in any order
 * @param fps rate it was filmed at, 10–2000 frames a second
 * @throws MeasureError naming the mark, when two follow each other that cannot
 * @example readFilmContacts([{ kind: 'touchdown', frame: 0 }, { kind: 'toe-off', frame: 48 }], 240)[0].contactTimeS // 0.2
 */
export function readFilmContacts(marks: readonly FilmMark[], fps: number): FilmContact[] {
	inBounds('fps', fps, FPS_BOUNDS)
	const ordered = [...marks].sort((a, b) => a.frame - b.frame)
	ordered.forEach((mark, index) => {
		inBounds('frame', mark.frame, { from: 0, to: 1e8, whole: true })
		const before = ordered[index - 1]
		if (!before && mark.kind === 'toe-off')
			throw new MeasureError('frame', mark.frame, 'a touchdown before this toe-off')
		if (before?.frame === mark.frame) throw new MeasureError('frame', mark.frame, 'one mark a frame')
		if (before?.kind === mark.kind)
			throw new MeasureError(
				'frame',
				mark.frame,
				`a ${mark.kind === 'touchdown' ? 'toe-off' : 'touchdown'} between frame ${before.frame} and this ${mark.kind}`,
			)
	})
	return ordered.flatMap((mark, index): FilmContact[] => {
		const off = ordered[index + 1]
		if (mark.kind !== 'touchdown' || !off) return []
		const next = ordered[index + 2]
		const contactTimeS = secondsOf(off.frame - mark.frame, fps)
		const flightTimeS = next ? secondsOf(next.frame - off.frame, fps) : null
		const isJump = flightTimeS !== null && flightTimeS < 1.5 && contactTimeS < 3
		return [
			{
				touchdownFrame: mark.frame,
				toeOffFrame: off.frame,
				side: mark.side ?? null,
				contactTimeS,
				flightTimeS,
				rebound: isJump ? rebound({ contactTimeS, flightTimeS, fps }) : null,
				stepFrequencyHz: next ? 1 / secondsOf(next.frame - mark.frame, fps) : null,
			},
		]
	})
}

/** Mean index of contacts of one side, for left against right; null when that side has none. */
export function meanIndexOf(contacts: readonly FilmContact[], side: 'left' | 'right'): number | null {
	const own = contacts.flatMap((contact) => (contact.side === side && contact.rebound ? [contact.rebound.rsiMps] : []))
	return own.length === 0 ? null : own.reduce((sum, value) => sum + value, 0) / own.length
}
