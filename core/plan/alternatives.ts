import type { Theme } from '../vocabulary/theme'
import type { Surface } from '../vocabulary/words'
import type { ProposeOptions } from './build-pack'
import type { Proposal } from './propose-session'
import { HALL_M } from './room'
import { type Themes, themesFor } from './themes'

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
 * @param themes the library's
 */
export function alternativesOf(
	options: ProposeOptions,
	proposal: Proposal,
	surface: Surface | null,
	themes: Themes,
): Alternative[] {
	const { theme, kit, roomM } = options
	const minutes = 5 * Math.floor((proposal.minutes - SHORTER_MIN) / 5)
	const next = theme ? after(theme, themes) : null
	const boxes = kit === null ? [] : [...kit].filter((one) => BOXES.test(one))
	const all: (Alternative | null)[] = [
		minutes >= LEAST_MIN ? { id: 'shorter', label: `Shorter: ${minutes} min`, options: { ...options, minutes } } : null,
		next
			? { id: 'another', label: `Another: ${next.name.toLowerCase()}`, options: { ...options, theme: next.id } }
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
function after(id: string, themes: Themes): Theme | null {
	const theme = themes[id]
	if (!theme) return null
	const alike = themesFor(themes, theme.role).filter(({ main }) => main === theme.main)
	const next = alike[(alike.indexOf(theme) + 1) % alike.length]!
	return next === theme ? null : next
}
