import type { DayRole } from '#core/vocabulary/session'
import { PHASES } from '#core/vocabulary/words'

/** What a day is for, in words. */
export const ROLE_WORDS: Record<DayRole, string> = {
	hard: 'a hard day',
	light: 'a light day',
	tissue: 'tendon work',
	test: 'tests',
}
/** Those in which a theme can have a turn: an unloading week has the ones of accumulating. */
export const BLOCK_PHASES = PHASES.filter((phase) => phase !== 'unloading')
