import type { Firmness } from '../vocabulary/words'
import type { Facts } from './facts'
import type { Form } from './form'

export const RULE_NAMES = {
	S1: 'Pain',
	S2: 'Closed or restricted',
	S3: 'Unwell',
	S4: 'Level, age and mass',
	S5: 'Order',
	S6: 'Spacing',
	S7: 'Ramp',
	S8: 'Gates',
	S9: 'Worry',
	S10: 'Place',
	S11: 'Match',
	P1: 'Pass',
	P2: 'Miss',
	P3: 'Unclear',
	P4: 'Drop-off',
	P5: 'Ready check',
	P6: 'Phase',
	P7: 'Plateau',
	P8: 'One new thing',
	P9: 'Missed time',
	P10: 'Assisted',
	P11: 'Carried load',
	P12: 'Level',
	RE: 'Way back',
	BB: 'Best box',
	LR: 'Left and right',
	SF: 'Slow fall',
} as const
export type RuleId = keyof typeof RULE_NAMES

/** A block writes no line; a caution wants a named acknowledgement with a reason. */
export type Tier = 'block' | 'caution'

/** What a rule found, against what limit. */
export interface Finding {
	rule: RuleId
	tier: Tier
	firmness: Firmness
	/** "knee closed since 2026-03-14" */
	found: string
	/** "cleared by a health professional" */
	limit: string
}

/** One rule: a question asked of what is known and what is asked for. Nothing found is null. */
export interface Rule {
	id: RuleId
	question: string
	read(facts: Facts, form: Form): Finding | null
}
