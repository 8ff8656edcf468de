import { QUALITY_OF } from '../vocabulary/entry'
import type { DayRole } from '../vocabulary/session'
import type { Theme } from '../vocabulary/theme'
import { type Phase, QUALITIES, type Quality } from '../vocabulary/words'

/** The library's themes, by id. */
export type Themes = Readonly<Record<string, Theme>>

/**
 * The recipe of a day that names none or one that is no more is the library's first of its kind: of hard days the one
 * for everything a little. Null where the library has none.
 */
export function themeOn(
	themes: Themes,
	{ theme = null, role }: { theme?: string | null; role: DayRole },
): Theme | null {
	const asked = theme === null ? undefined : themes[theme]
	if (asked?.role === role) return asked
	return themesFor(themes, role).find((one) => role !== 'hard' || one.main === null) ?? null
}

/** The recipes there are for a day, by quality and in the order they come in a block. */
export const themesFor = (themes: Themes, role: DayRole): Theme[] =>
	Object.values(themes)
		.filter((theme) => theme.role === role)
		.sort((a, b) => rank(a) - rank(b) || turnOf(a) - turnOf(b) || (a.name < b.name ? -1 : 1))
const rank = ({ main }: Theme) => (main === null ? -1 : QUALITIES.indexOf(main))
const turnOf = ({ inBlock }: Theme) =>
	Math.min(...[inBlock.accumulate, inBlock.intensify, inBlock.peaking].map((turn) => turn ?? 10))

/** Of the middle of a level's range: the second quality of a day, and what is only kept [our setting]. */
export const SECOND_SHARE = 2 / 3
export const KEEPING_SHARE = 0.4
/** Of its rung's dose, what keeps a quality [our setting]. */
export const KEEPING_DOSE = 0.5

/** Themes of a quality in a phase of a block, in their turn. */
function inPhase(themes: Themes, quality: Quality, phase: Phase): Theme[] {
	const emphasis = phase === 'unloading' ? 'accumulate' : phase
	return themesFor(themes, 'hard')
		.filter((theme) => theme.main === quality && theme.inBlock[emphasis] !== undefined)
		.sort((a, b) => a.inBlock[emphasis]! - b.inBlock[emphasis]!)
}

/**
 * The theme of every session of a block, in order; null where the day is not a hard one, or no theme of its quality has
 * a turn in the phase. The priority, or sprinting where nothing stands out [our setting], has the first hard day of each
 * week and every second one after it; what is only kept has none; the others take turns, and so do the themes of one
 * quality.
 *
 * @param sessions of the block, oldest first
 */
export function blockThemes(
	sessions: readonly { week: number; phase: Phase; role: DayRole }[],
	priority: Quality | null,
	kept: readonly Quality[],
	themes: Themes,
): (string | null)[] {
	const lead = priority ?? (kept.includes('sprint') ? null : 'sprint')
	const others = QUALITIES.filter((quality) => quality !== lead && !kept.includes(quality))
	const turns = new Map<Quality, number>()
	let other = 0
	return sessions.map(({ week, phase, role }, index) => {
		if (role !== 'hard') return null
		const inWeek = sessions.slice(0, index).filter((one) => one.week === week && one.role === 'hard').length
		const leads = lead !== null && (inWeek % 2 === 0 || others.length === 0)
		const quality = leads ? lead : others.length > 0 ? others[other++ % others.length]! : 'sprint'
		const own = inPhase(themes, quality, phase)
		const turn = turns.get(quality) ?? 0
		turns.set(quality, turn + 1)
		return own[turn % own.length]?.id ?? null
	})
}

/** "Acceleration first; jumps second; agility and throws only kept." What has no piece is not said. */
export function sayTheme({ name, main, second, kept }: Theme, names: Readonly<Record<Quality, string>>): string {
	if (main === null) return `${name}.`
	const rest = QUALITIES.filter((quality) =>
		kept.some((piece) => piece.quantity !== null && QUALITY_OF[piece.quantity] === quality),
	).map((quality) => names[quality])
	const said = rest.length > 1 ? `${rest.slice(0, -1).join(', ')} and ${rest.at(-1)!}` : rest.join('')
	return `${[`${name} first`, ...(second ? [`${names[second]} second`] : []), ...(said ? [`${said} only kept`] : [])].join('; ')}.`
}
