import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plainFacts } from '../../tests/support/plain-facts'
import { STARTER_LIBRARY as LIBRARY } from '../library/starter-library'
import { type PlainFacts, concludeFor } from '../permit/plain-facts'
import { formOf } from '../rules/form'
import { pain as painRule } from '../rules/s1-pain'
import { restriction } from '../rules/s2-restriction'
import { unwell } from '../rules/s3-unwell'
import type { CareReport, Clearance, Restriction } from '../vocabulary/care'
import type { LogEvent } from '../vocabulary/events'
import { REGIONS, type Region } from '../vocabulary/words'
import { limitsOf } from './body-now'
import { type BodyLimits, closedNow, heardSince, overToday, unwellNow } from './over-today'
import { sayLimitsOf } from './say-limits'

// The pack carries what the rulebook needs for that role; the phone adds its own unsent reports at once. So whatever
// was said before, and whatever is said in the session on this phone and on another, the phone bars what the server
// bars: a coach's, which is sent every report, and an assistant's, which is sent limits alone.

const DAY = '2026-03-20'
const daysAgo = (n: number) => new Date(Date.UTC(2026, 2, 20 - n)).toISOString().slice(0, 10)
// Every fourth: every family, load and intensity is among them, and the law stays quick.
const drills = Object.values(LIBRARY.drills).filter((_, index) => index % 4 === 0)
const few = fc.constantFrom<Region>('knee', 'back-thigh', 'shoulder', 'neck-head', 'abdomen')
const region = fc.oneof({ weight: 3, arbitrary: few }, fc.constantFrom(...REGIONS))
const side = fc.constantFrom('left' as const, 'right' as const, 'both' as const)
const score = fc.oneof({ weight: 3, arbitrary: fc.integer({ min: 1, max: 4 }) }, fc.integer({ min: 0, max: 10 }))
const flag = fc.nat(15).map((n) => n === 0)

const before: fc.Arbitrary<CareReport> = fc.oneof(
	{
		weight: 9,
		arbitrary: fc.record({
			kind: fc.constant('pain' as const),
			region,
			side,
			score,
			redFlag: flag,
			day: fc.integer({ min: 1, max: 20 }).map(daysAgo),
			asked: flag,
		}),
	},
	{
		weight: 1,
		arbitrary: fc
			.tuple(fc.constantFrom('unwell' as const, 'well' as const), fc.integer({ min: 1, max: 9 }))
			.map(([kind, n]): CareReport => ({ kind, day: daysAgo(n) })),
	},
)
const cleared: fc.Arbitrary<Clearance> = fc.record({
	region,
	side,
	day: fc.integer({ min: 0, max: 18 }).map(daysAgo),
	by: fc.constant('S. Lindqvist'),
	role: fc.constantFrom('doctor' as const, 'physiotherapist' as const, 'coach' as const),
	injury: fc.boolean(),
})
const closedByHand: fc.Arbitrary<Restriction> = fc.oneof(
	fc.record({ region, since: fc.constant(daysAgo(4)) }),
	fc.record({ pattern: fc.constantFrom('lateral' as const, 'rotational' as const), since: fc.constant(daysAgo(4)) }),
	fc.record({
		drillId: fc.constantFrom('pogo', 'broad-jump').map((id) => id as never),
		since: fc.constant(daysAgo(4)),
	}),
)
/** What is said in the session: on which of two phones, and what. */
const said = fc.record({
	phone: fc.constantFrom('a' as const, 'b' as const),
	what: fc.oneof(
		{
			weight: 8,
			arbitrary: fc.record({ kind: fc.constant('pain' as const), region, side, score, redFlag: flag }),
		},
		{ weight: 1, arbitrary: fc.constant({ kind: 'unwell' as const }) },
		{ weight: 1, arbitrary: fc.constantFrom({ kind: 'head' as const }, { kind: 'chest' as const }) },
	),
})
type Said = {
	phone: 'a' | 'b'
	what: { kind: string; region?: Region; side?: string; score?: number; redFlag?: boolean }
}

const eventOf = ({ phone, what: { kind, ...value } }: Said, index: number): LogEvent =>
	({
		id: `e${index}`,
		sessionId: 's',
		athleteId: 'a',
		deviceId: phone,
		deviceSeq: index,
		deviceTime: new Date(Date.UTC(2026, 2, 20, 17, index)).toISOString(),
		type: 'observation',
		kind,
		value: kind === 'pain' ? { ...value, moment: 'during' } : {},
	}) as unknown as LogEvent
const reportOf = ({ what: { kind, ...value } }: Said): CareReport => ({ kind, ...value, day: DAY }) as CareReport

const barsOf = (limits: BodyLimits): string[] =>
	drills.filter((drill) => overToday(limits, drill, drill.defaults.parameters) !== null).map(({ id }) => id)
/** What the rules of the body bar on the server, drill by drill. */
const serverBars = (plain: PlainFacts): string[] => {
	const { facts } = concludeFor(plain, LIBRARY)
	return drills
		.filter((drill) => {
			const form = formOf(drill, drill.defaults.parameters, LIBRARY)
			return [painRule, restriction, unwell].some((rule) => rule.read(facts, form) !== null)
		})
		.map(({ id }) => id)
}
const joined = (...all: BodyLimits[]): BodyLimits => ({
	closures: all.flatMap((one) => one.closures),
	shut: all.flatMap((one) => one.shut ?? []),
	easyOnly: all.some((one) => one.easyOnly),
})

interface Case {
	history: CareReport[]
	clearances: Clearance[]
	restrictions: Restriction[]
	sessions: number[]
	session: Said[]
}
const cases: fc.Arbitrary<Case> = fc.record({
	history: fc.array(before, { maxLength: 5 }),
	clearances: fc.array(cleared, { maxLength: 1 }),
	restrictions: fc.array(closedByHand, { maxLength: 1 }),
	sessions: fc.uniqueArray(fc.integer({ min: 0, max: 20 }), { maxLength: 8 }),
	session: fc.array(said, { maxLength: 4 }),
}) as fc.Arbitrary<Case>

/** What a phone bars that knows some of the events and, where it is connected, what the server says of all of them. */
function phoneBars(one: Case, plain: PlainFacts, events: LogEvent[], heard: BodyLimits | undefined): string[] {
	const made = concludeFor(plain, LIBRARY)
	const limits = limitsOf(made)
	const athlete = { id: 'a', sayLimits: sayLimitsOf({ ...plain, returning: made.plan.regions }, DAY) }
	const own = { closures: closedNow(athlete, events, DAY), shut: [], easyOnly: unwellNow('a', events) }
	return barsOf(joined(limits, own, heardSince(limits, heard)))
}
const factsBefore = ({ history, clearances, restrictions, sessions }: Case): PlainFacts =>
	plainFacts({ reports: history, clearances, restrictions, sessions: sessions.map(daysAgo) })
const factsAfter = (one: Case): PlainFacts => {
	const plain = factsBefore(one)
	return { ...plain, reports: [...plain.reports, ...one.session.map(reportOf)] }
}

describe('the phone bars what the server bars', () => {
	const runs = { numRuns: 250, seed: 20260320 }
	it('without a connection, whoever holds it: from the pack and what was said on it', () => {
		let closing = 0
		fc.assert(
			fc.property(cases, (one) => {
				const mine = { ...one, session: one.session.filter(({ phone }) => phone === 'a') }
				const server = serverBars(factsAfter(mine))
				if (server.length > serverBars(factsBefore(mine)).length) closing++
				expect(phoneBars(mine, factsBefore(mine), mine.session.map(eventOf), undefined)).toEqual(server)
			}),
			runs,
		)
		// A law of which nothing ever came true would hold nothing.
		expect(closing).toBeGreaterThan(60)
	})
	it('connected, as an assistant: own reports, and the server’s limits of all', () => {
		fc.assert(
			fc.property(cases, (one) => {
				const own = one.session.map(eventOf).filter((event) => event.deviceId === 'a')
				const heard = limitsOf(concludeFor(factsAfter(one), LIBRARY))
				expect(phoneBars(one, factsBefore(one), own, heard)).toEqual(serverBars(factsAfter(one)))
			}),
			runs,
		)
	})
	it('connected, as a coach: every report, and the server’s limits', () => {
		fc.assert(
			fc.property(cases, (one) => {
				const heard = limitsOf(concludeFor(factsAfter(one), LIBRARY))
				expect(phoneBars(one, factsBefore(one), one.session.map(eventOf), heard)).toEqual(serverBars(factsAfter(one)))
			}),
			runs,
		)
	})
	it('as a coach who heard every report and not yet what the server makes of them', () => {
		fc.assert(
			fc.property(cases, (one) => {
				expect(phoneBars(one, factsBefore(one), one.session.map(eventOf), undefined)).toEqual(
					serverBars(factsAfter(one)),
				)
			}),
			runs,
		)
	})
})
