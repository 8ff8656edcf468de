import type { BodyEvent } from './events'

/*
 * The words of the log that a phone needs, without the schemas: what is written here is small wherever it travels.
 */

/** Events sent at once, and the characters of them: what is longer goes in several batches. */
export const MAX_BATCH = 1000
export const MAX_CHARACTERS = 2_000_000

export const MISSED_REASONS = ['aborted', 'false-start', 'no-time'] as const
export const END_REASONS = ['drop-off', 'good-day', 'coach', 'weather', 'pain', 'refusal'] as const
export type EndReason = (typeof END_REASONS)[number]
/** Why a carried load came off: it cost speed, spoilt the movement, or was worn as long as it should be. */
export const LOAD_OFF_REASONS = ['speed-loss', 'movement', 'minutes'] as const
/** Why a session ends before its plan. Lightning and heat are reasons of their own: nobody goes on. */
export const CUT_SHORT_REASONS = ['time', 'weather', 'coach', 'lightning', 'heat'] as const
export type CutShortReason = (typeof CUT_SHORT_REASONS)[number]

/** Kinds of observation about somebody's body: they close and open, and only coach, clinician and the athlete read them. */
export const BODY_KINDS = ['pain', 'head', 'chest', 'unwell', 'quiet', 'worry'] as const
export const isOfBody = <E extends { type: string; kind: string }>(event: E): event is E & BodyEvent =>
	event.type === 'observation' && (BODY_KINDS as readonly string[]).includes(event.kind)
