import type { Quantity } from '../vocabulary/entry'
import type { Level, Phase } from '../vocabulary/words'
import type { DayRole, ThemeId } from '../vocabulary/session'
import type { Quality } from './targets'

/** What is put on the sheet for a theme: a ladder, or a drill in a form for each level that is topped up to the target. */
export type ThemePiece = { part: string } & (
	| { ladder: string; quantity: Quantity | null }
	| { forms: readonly (readonly [Level, string])[]; quantity: Quantity }
)
/** A session with one main quality, at most one second, and the rest kept in a few minutes. */
export interface Theme {
	/** "Acceleration" */
	name: string
	main: Quality
	second: Quality | null
	/** Of the main and the second quality, in the order they are done. */
	pieces: readonly ThemePiece[]
}

const ladder = (part: string, id: string, quantity: Quantity | null): ThemePiece => ({ part, ladder: id, quantity })
const forms = (part: string, quantity: Quantity, ...levels: readonly (readonly [Level, string])[]): ThemePiece => ({
	part,
	forms: levels,
	quantity,
})
const starts = (part: string) => forms(part, 'fastMetres', [1, 'standing-start'])
const forward = (part: string) => forms(part, 'contacts', [1, 'broad-jump'], [2, 'repeated-broad-jump'])
const sideways = (part: string) => forms(part, 'contacts', [1, 'lateral-stick'], [2, 'lateral-reach'])
const upward = (part: string) => forms(part, 'contacts', [1, 'countermovement-jump'], [2, 'single-leg-pogo'])
const sixty = (part: string) => forms(part, 'cuts60', [1, 'sharp-wide-cut'])
const springs = [ladder('Springs', 'stiffness', 'contacts'), forward('Springs')] as const
const jumps = [forward('Jumps'), upward('Jumps')] as const
const short = (part: string) => [ladder(part, 'acceleration', 'fastMetres'), starts(part)] as const

/** The themes of hard days [our setting; what belongs together and in which order is common practice, no source]. */
export const THEMES = {
	acceleration: {
		name: 'Acceleration',
		main: 'sprint',
		second: 'plyometric',
		pieces: [...short('Acceleration'), forward('Jumps forward')],
	},
	'top-speed': {
		name: 'Top speed',
		main: 'sprint',
		second: 'plyometric',
		pieces: [ladder('Top speed', 'top-speed', 'fastMetres'), starts('Top speed'), ...springs],
	},
	'heavy-and-free': {
		name: 'Heavy, then free',
		main: 'sprint',
		second: 'plyometric',
		pieces: [ladder('Heavy, then free', 'contrast', 'fastMetres'), ...short('Starts'), upward('Jumps upward')],
	},
	'faster-than-alone': {
		name: 'Pulled to speed',
		main: 'sprint',
		second: 'plyometric',
		pieces: [ladder('Pulled to speed', 'assisted', 'fastMetres'), ...short('Starts'), ...springs],
	},
	carried: {
		name: 'A little weight',
		main: 'sprint',
		second: 'plyometric',
		pieces: [ladder('A little weight', 'carried-load', 'fastMetres'), ...short('Starts'), forward('Jumps forward')],
	},
	'repeat-speed': {
		name: 'Speed again and again',
		main: 'sprint',
		second: 'agility',
		pieces: [...short('Starts'), ladder('Again and again', 'repeat-speed', 'fastMetres'), sixty('Cuts at 60°')],
	},
	stiffness: {
		name: 'Springs',
		main: 'plyometric',
		second: 'sprint',
		pieces: [ladder('Springs', 'stiffness', 'contacts'), ...jumps, ...short('Starts')],
	},
	rebound: {
		name: 'Landing and rebound',
		main: 'plyometric',
		second: 'sprint',
		pieces: [...short('Starts'), ladder('Landing and rebound', 'shock', 'contacts'), ...jumps],
	},
	bounds: {
		name: 'Bounds and hops',
		main: 'plyometric',
		second: 'sprint',
		pieces: [...short('Starts'), ladder('Bounds and hops', 'bound', 'contacts'), ...jumps],
	},
	'take-off': {
		name: 'Take-off',
		main: 'plyometric',
		second: 'throw',
		pieces: [ladder('Take-off', 'take-off', 'contacts'), ...jumps, ladder('Throws', 'throw', 'throws')],
	},
	sideways: {
		name: 'Sideways',
		main: 'plyometric',
		second: 'agility',
		pieces: [ladder('Sideways', 'lateral-bound', 'contacts'), sideways('Jumps sideways'), sixty('Cuts at 60°')],
	},
	turns: {
		name: 'Turns and braking',
		main: 'agility',
		second: 'plyometric',
		pieces: [
			ladder('Stops', 'brake', 'cuts60'),
			ladder('Cuts', 'cut', 'cuts60'),
			sixty('Cuts'),
			sideways('Jumps sideways'),
		],
	},
	curves: {
		name: 'Curves and reacting',
		main: 'agility',
		second: 'sprint',
		pieces: [
			ladder('Curves', 'curve', 'fastMetres'),
			ladder('Reacting', 'react', 'cuts60'),
			sixty('Reacting'),
			...short('Starts'),
		],
	},
	throws: {
		name: 'Throws',
		main: 'throw',
		second: 'plyometric',
		pieces: [
			ladder('Throws', 'throw', 'throws'),
			forms('Throws from the legs', 'throws', [1, 'standing-chest-push'], [2, 'underhand-throw']),
			upward('Jumps upward'),
		],
	},
} as const satisfies Record<ThemeId, Theme>
export const themeOf = (id: ThemeId): Theme => THEMES[id]

/** What a day is about; null where it is no hard one, or for everything a little. */
export const themeOn = ({ theme = null, role }: { theme?: ThemeId | null; role: DayRole }): Theme | null =>
	theme === null || role !== 'hard' ? null : themeOf(theme)

/** What keeps a quality that is not the day's in a few minutes: one piece each. */
export const KEEPING: Record<Quality, ThemePiece> = {
	sprint: ladder('Starts, kept', 'acceleration', 'fastMetres'),
	plyometric: ladder('Springs, kept', 'stiffness', 'contacts'),
	agility: ladder('Cuts, kept', 'cut', 'cuts60'),
	throw: ladder('Throws, kept', 'throw', 'throws'),
}
/** Of the middle of a level's range: the second quality of a day, and what is only kept [our setting]. */
export const SECOND_SHARE = 2 / 3
export const KEEPING_SHARE = 0.4
/** Of its rung's dose, what keeps a quality [our setting]. */
export const KEEPING_DOSE = 0.5

/** Themes of a quality by the block's emphasis: the general before the fast and the hard. */
const BY_PHASE: Record<Quality, Record<Exclude<Phase, 'unloading'>, readonly ThemeId[]>> = {
	sprint: {
		accumulate: ['acceleration'],
		intensify: ['acceleration', 'top-speed'],
		peaking: ['top-speed', 'acceleration'],
	},
	plyometric: {
		accumulate: ['stiffness', 'bounds', 'sideways'],
		intensify: ['rebound', 'bounds', 'sideways', 'take-off'],
		peaking: ['rebound', 'stiffness'],
	},
	agility: { accumulate: ['turns', 'curves'], intensify: ['turns', 'curves'], peaking: ['turns', 'curves'] },
	throw: { accumulate: ['throws'], intensify: ['throws'], peaking: ['throws'] },
}
const QUALITIES_IN_TURN: readonly Quality[] = ['sprint', 'plyometric', 'agility', 'throw']

/**
 * The theme of every session of a block, in order; null where the day is not a hard one. The priority, or sprinting where
 * nothing stands out [our setting], has the first hard day of each week and every second one after it; what is only kept
 * has none; the others take turns, and so do the themes of one quality.
 *
 * @param sessions of the block, oldest first
 */
export function blockThemes(
	sessions: readonly { week: number; phase: Phase; role: DayRole }[],
	priority: Quality | null,
	kept: readonly Quality[],
): (ThemeId | null)[] {
	const lead = priority ?? (kept.includes('sprint') ? null : 'sprint')
	const others = QUALITIES_IN_TURN.filter((quality) => quality !== lead && !kept.includes(quality))
	const turns = new Map<Quality, number>()
	let other = 0
	return sessions.map(({ week, phase, role }, index) => {
		if (role !== 'hard') return null
		const inWeek = sessions.slice(0, index).filter((one) => one.week === week && one.role === 'hard').length
		const leads = lead !== null && (inWeek % 2 === 0 || others.length === 0)
		const quality = leads ? lead : others.length > 0 ? others[other++ % others.length]! : 'sprint'
		const themes = BY_PHASE[quality][phase === 'unloading' ? 'accumulate' : phase]
		const turn = turns.get(quality) ?? 0
		turns.set(quality, turn + 1)
		return themes[turn % themes.length]!
	})
}

/** "Acceleration first; jumps second; cuts and throws kept." */
export function sayTheme(id: ThemeId, names: Readonly<Record<Quality, string>>): string {
	const { name, main, second } = themeOf(id)
	const rest = QUALITIES_IN_TURN.filter((quality) => quality !== main && quality !== second).map(
		(quality) => names[quality],
	)
	const kept = rest.length > 1 ? `${rest.slice(0, -1).join(', ')} and ${rest.at(-1)!}` : rest.join('')
	return `${name} first${second ? `; ${names[second]} second` : ''}; ${kept} only kept.`
}
