import type { CutShortReason } from '../../vocabulary/event-kinds'

const WORDS: Record<CutShortReason, string> = {
	time: 'no time left',
	weather: 'the weather',
	coach: 'the coach ended it',
	lightning: 'lightning',
	heat: 'heat',
}
/** Why a session was ended before its plan, in words. */
export const sayCutShort = (reason: CutShortReason): string => WORDS[reason]
