import type { ThemeId } from '../vocabulary/session'
import { THEME_IDS } from '../vocabulary/session'
import type { Surface } from '../vocabulary/words'
import type { ProposeOptions } from './build-pack'
import type { Proposal } from './propose-session'
import { HALL_M } from './room'
import { themeOf } from './themes'

export const ALTERNATIVES = ['shorter', 'another', 'indoors', 'without-boxes'] as const
export type AlternativeId = (typeof ALTERNATIVES)[number]
/** Another way to the same day: what it is called, and what is asked for it. */
export interface Alternative {
	id: AlternativeId
	label: string
	options: ProposeOptions
}

/** So much less is a shorter session, and nothing shorter than this is proposed, minutes [our setting]. */
const [SHORTER_MIN, LEAST_MIN] = [10, 30]
/** What stands on a box, and what is jumped over. */
const BOXES = /\bbox\b|hurdle|\bstep\b/

/**
 * What else may be asked for after a proposal: less time, another theme of the same quality, a hall, no boxes. Only what
 * is not so already.
 *
 * @param options what the proposal was made from
 * @param surface what is under foot
 */
export function alternativesOf(options: ProposeOptions, proposal: Proposal, surface: Surface | null): Alternative[] {
	const { theme, kit, roomM } = options
	const minutes = 5 * Math.floor((proposal.minutes - SHORTER_MIN) / 5)
	const next = theme ? after(theme) : null
	const boxes = kit === null ? [] : [...kit].filter((one) => BOXES.test(one))
	const all: (Alternative | null)[] = [
		minutes >= LEAST_MIN ? { id: 'shorter', label: `Shorter: ${minutes} min`, options: { ...options, minutes } } : null,
		next
			? { id: 'another', label: `Another: ${themeOf(next).name.toLowerCase()}`, options: { ...options, theme: next } }
			: null,
		surface === 'indoor' && roomM != null
			? null
			: {
					id: 'indoors',
					label: `Indoors, ${HALL_M} m`,
					options: { ...options, surface: 'indoor', roomM: HALL_M },
				},
		boxes.length === 0
			? null
			: {
					id: 'without-boxes',
					label: 'Without boxes',
					options: { ...options, kit: new Set([...kit!].filter((one) => !boxes.includes(one))) },
				},
	]
	return all.filter((one) => one !== null)
}

/** The next theme of the same quality, round and round; null where it is the only one. */
function after(theme: ThemeId): ThemeId | null {
	const alike = THEME_IDS.filter((id) => themeOf(id).main === themeOf(theme).main)
	const next = alike[(alike.indexOf(theme) + 1) % alike.length]!
	return next === theme ? null : next
}
