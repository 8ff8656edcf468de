import type { Family } from '#core/vocabulary/words'
import type { VerdictWord } from '#core/judge/types'

const FAMILY_PATHS: Record<Family, string> = {
	sprint: 'M1 8H22M22 4V12',
	agility: 'M1 13L7 3L12 13L17 3L23 9',
	plyometric: 'M1 13Q5 0 9 13Q12 5 15 13M15 13Q19 -2 23 13',
	throw: 'M1 12Q9 -6 22 12M22 12l-4 -1M22 12l1 -4',
	prepare: 'M12 2a6 6 0 1 0 .1 0',
	tissue: 'M1 8q4 -6 8 0t8 0t6 -1',
}
const VERDICT_PATHS: Record<VerdictWord, string> = {
	advance: 'M3 13H10V7H17V2H22',
	hold: 'M3 8H21',
	ease: 'M3 3H10V9H17V14H22',
	swap: 'M3 5H19l-4 -4M21 11H5l4 4',
	stop: 'M5 2H19V14H5Z',
	're-enter': 'M20 8a8 6 0 1 1 -3 -5M17 3V7M17 3H13',
}

/** A family's drawing; always beside the word, or with it as its name. */
export function FamilyMark({ family, label = false }: { family: Family; label?: boolean }) {
	return (
		<svg
			className="glyph shrink-0"
			style={{ color: `var(--color-${family})` }}
			viewBox="0 0 24 16"
			width="24"
			height="16"
			{...(label ? { role: 'img', 'aria-label': family } : { 'aria-hidden': true })}
		>
			<path d={FAMILY_PATHS[family]} />
		</svg>
	)
}

export function VerdictMark({ word }: { word: VerdictWord }) {
	return (
		<svg
			className={`glyph shrink-0 ${word === 'stop' ? 'text-attn' : ''}`}
			viewBox="0 0 24 16"
			width="24"
			height="16"
			role="img"
			aria-label={word}
		>
			<path d={VERDICT_PATHS[word]} />
		</svg>
	)
}
