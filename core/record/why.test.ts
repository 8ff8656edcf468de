import { describe, expect, it } from 'vitest'
import { Random } from '../chance/random'
import { ordinal } from '../words/write-numbers'
import { type Around, type CauseId, FLAT_CAUSES, type FlatCause, medianGapS, pastBestOf, whyOf } from './why'

const DAY = '2026-11-26'
/** Everything is known, and nothing of it explains anything. */
const PLAIN: Around = {
	day: DAY,
	past: null,
	newHard: [],
	spacing: null,
	outside: [],
	ramp: [],
	awayDays: 3,
	unwell: null,
	rests: { askedS: 180, tookS: 190 },
	aidedBefore: null,
	windMps: 0,
	unloading: false,
	hoursSinceHard: 72,
	improving: null,
}
const flat = (more: Partial<Around>, ticked: { cause: CauseId }[] = []) => whyOf('flat', { ...PLAIN, ...more }, ticked)
const good = (more: Partial<Around>) => whyOf('good', { ...PLAIN, ...more })
const ids = ({ causes }: ReturnType<typeof whyOf>) => causes.map(({ id }) => id)
const match = (hoursAgo: number, more: object = {}) => ({
	outside: [{ kind: 'match' as const, hoursAgo, minutes: 90, rpe: 7, ...more }],
})
const unwell = (since: string, until: string | null) => ({ unwell: { since, until } })
const past = (marks: number[], hoursAgo = 48) => ({
	past: { what: 'Three-point start 20 m', kind: 'sprint' as const, marks, hoursAgo },
})
const spacing = (hours: number, askedH = 48) => ({ spacing: { kind: 'maximal-sprint' as const, hours, askedH } })
const ramp = (done: number) => ({ ramp: [{ name: 'maximal starts', done, limit: 20 }] })
const fresh = (name: string, hoursAgo: number) => ({ name, hoursAgo })

describe('why flat', () => {
	it('says that nothing is known where nothing is, and what was looked for', () => {
		expect(flat({})).toEqual({
			causes: [],
			notFound: [
				'reps past the best',
				'two new hard things',
				'hard days too close',
				'match',
				'the week’s ramp',
				'first day back',
				'illness',
				'short rests',
				'carried or assisted work before',
				'wind',
				'heavy or new gym work',
			],
			notKnown: [],
		})
	})
	it('keeps what nobody logged apart from what was not there', () => {
		expect(flat({ rests: null, windMps: null, awayDays: null }).notKnown).toEqual([
			'first day back',
			'short rests',
			'wind',
		])
	})
	it.each<[string, CauseId, Partial<Around>, Partial<Around>]>([
		['a match up to 48 h before', 'match', match(48), match(48.5)],
		['a tournament day', 'match', match(10, { kind: 'tournament' }), match(10, { kind: 'practice' })],
		[
			'two new hard things within 72 h',
			'new-things',
			{ newHard: [fresh('Depth jump 15 cm', 72), fresh('Full turn', 20)] },
			{ newHard: [fresh('Depth jump 15 cm', 73), fresh('Full turn', 20)] },
		],
		// The school asks 48 h, which count as met from 44 on.
		['hard days closer than the school asks', 'spacing', spacing(43.9), spacing(44)],
		['the same where it asks 72 h', 'spacing', spacing(67.9, 72), spacing(68, 72)],
		['a week over its limit', 'ramp', ramp(21), ramp(20)],
		['the first day after more than a week', 'first-day-back', { awayDays: 8 }, { awayDays: 7 }],
		['somebody unwell', 'unwell', unwell('2026-11-20', null), {}],
		[
			'somebody well again for a week',
			'unwell',
			unwell('2026-11-10', '2026-11-19'),
			unwell('2026-11-10', '2026-11-18'),
		],
		['an illness that began that day', 'unwell', unwell(DAY, null), unwell('2026-11-27', null)],
		[
			'rests under three quarters of what is asked',
			'short-rests',
			{ rests: { askedS: 200, tookS: 149 } },
			{ rests: { askedS: 200, tookS: 150 } },
		],
		[
			'carried or assisted work in the hour before',
			'aided-before',
			{ aidedBefore: { what: 'Assisted sprint', minutes: 60 } },
			{ aidedBefore: { what: 'Assisted sprint', minutes: 61 } },
		],
		['a head wind from 1 m/s', 'wind', { windMps: -1 }, { windMps: -0.9 }],
		[
			'heavy gym work within 48 h',
			'gym',
			{ outside: [{ kind: 'gym', hoursAgo: 48, minutes: 60, rpe: null, heavy: true }] },
			{ outside: [{ kind: 'gym', hoursAgo: 48, minutes: 60, rpe: null }] },
		],
		['reps past the best within five days', 'past-best', past([3.04, 3.11, 3.17], 120), past([3.04, 3.11, 3.17], 121)],
	])('finds %s, and not beside it', (_what, cause, at, beside) => {
		expect(ids(flat(at))).toEqual([cause])
		expect(ids(flat(beside))).toEqual([])
	})
	it('gives its evidence with each', () => {
		const said = (more: Partial<Around>) => flat(more).causes.map(({ title, evidence }) => `${title} · ${evidence}`)
		expect(said(past([3.04, 3.11, 3.17]))).toEqual([
			'Two reps past the best the last time · Three-point start 20 m: 3.04 s, then 3.11 s, then 3.17 s',
		])
		expect(said(match(46))).toEqual(['Match 46 h before · 90 minutes, effort 7'])
		expect(said(spacing(24))).toEqual([
			'Hard days closer than the school asks · maximal sprinting 24 h before; asked are 48 h',
		])
		expect(said(unwell('2026-11-10', '2026-11-20'))).toEqual([
			'Just well again · from Tue 10 Nov, well from Fri 20 Nov',
		])
		expect(said({ rests: { askedS: 180, tookS: 80 } })).toEqual([
			'Short rests · 1:20 between reps by the clock, 3:00 asked',
		])
		expect(said(ramp(31))).toEqual(['A big week already · 31 maximal starts in seven days; 20 was the limit'])
	})
	it('puts first what there is more of, and what is oftener one', () => {
		expect(ids(flat({ ...match(4), ...ramp(21) }))).toEqual(['match', 'ramp'])
		expect(ids(flat({ ...match(47), ...unwell('2026-11-25', null) }))).toEqual(['unwell', 'match'])
		expect(ids(flat({ ...match(47), ...ramp(40) }))).toEqual(['ramp', 'match'])
	})
	const lift = (hoursAgo: number, more: object = {}) => ({
		outside: [{ kind: 'gym' as const, hoursAgo, minutes: 60, rpe: null, heavy: true, ...more }],
	})
	const aided = (minutes: number) => ({ aidedBefore: { what: 'Assisted sprint', minutes } })
	const rests = (tookS: number) => ({ rests: { askedS: 100, tookS } })
	// The table of the method page: how often such a thing is one, times a half for just enough to the whole for plenty.
	it.each<[string, Partial<Around>, number]>([
		['one rep past the best', past([3, 3.1]), 0.425],
		['four', past([3, 3.1, 3.1, 3.1, 3.2]), 0.85],
		['two new things', { newHard: [fresh('a', 10), fresh('b', 20)] }, 0.6],
		['three', { newHard: [fresh('a', 10), fresh('b', 20), fresh('c', 30)] }, 0.8],
		['half the hours that count as met', spacing(22), 0.5625],
		['a match just over', match(0), 0.9],
		['a day ago', match(24), 0.675],
		['two days ago', match(48), 0.45],
		['a quarter over the week’s limit', ramp(25), 0.525],
		['half over it', ramp(30), 0.7],
		['twice as much is no more than plenty', ramp(60), 0.7],
		['two weeks away', { awayDays: 14 }, 0.7125],
		['three', { awayDays: 21 }, 0.95],
		['unwell', unwell('2026-11-20', null), 1],
		['well again that very day', unwell('2026-11-20', DAY), 1],
		['well again for a week', unwell('2026-11-10', '2026-11-19'), 0.5],
		['half of the rests', rests(50), 0.6],
		['a quarter of them', rests(25), 0.8],
		['assisted half an hour before', aided(30), 0.45],
		['a head wind of 2.5 m/s', { windMps: -2.5 }, 0.5625],
		['of 4 m/s', { windMps: -4 }, 0.75],
		['lifted a day ago', lift(24), 0.525],
	])('weighs %s', (_what, more, weight) => expect(flat(more).causes[0]!.weight).toBeCloseTo(weight, 9))
	it.each<[Partial<Around>, string]>([
		[
			{ newHard: [fresh('Depth jump', 9.6), fresh('Full turn', 70)] },
			'Two new hard things within 72 h · Depth jump, 10 h before; Full turn, 70 h before',
		],
		[
			{ newHard: [fresh('a', 1), fresh('b', 2), fresh('c', 3)] },
			'3 new hard things within 72 h · a, 1 h before; b, 2 h before; c, 3 h before',
		],
		[past([3, 3.1]), 'One rep past the best the last time · Three-point start 20 m: 3.00 s, then 3.10 s'],
		[
			past([3, 3.1, 3.2, 3.3]),
			'3 reps past the best the last time · Three-point start 20 m: 3.00 s, then 3.10 s, then 3.20 s, then 3.30 s',
		],
		[match(10, { kind: 'tournament', rpe: null }), 'Tournament day 10 h before · 90 minutes'],
		[{ awayDays: 9 }, 'First day back · 9 days without such work'],
		[unwell('2026-11-20', null), 'Unwell · since Fri 20 Nov'],
		[unwell('2026-11-20', '2026-11-28'), 'Unwell · since Fri 20 Nov'],
		[aided(12.4), 'Carried or assisted work before · Assisted sprint, 12 min before'],
		[{ windMps: -1.25 }, 'Head wind · 1.3 m/s'],
		[lift(20), 'Heavy or new gym work · gym, 20 h before'],
		[lift(20, { words: 'Back squat 100 kg × 3' }), 'Heavy or new gym work · Back squat 100 kg × 3, 20 h before'],
	])('says what it goes by: %j', (more, words) =>
		expect(flat(more).causes.map(({ title, evidence }) => `${title} · ${evidence}`)).toEqual([words]),
	)
	it('of several tells the nearest match and lift, and the quantity that is over most', () => {
		const outside = [
			...match(40).outside,
			...match(5).outside,
			...lift(40).outside,
			...lift(6, { words: 'Jerk' }).outside,
		]
		const said = flat({ outside }).causes.map(({ title, evidence }) => `${title} ${evidence}`)
		expect(said[0]).toContain('Match 5 h before')
		expect(said[1]).toContain('Jerk, 6 h')
		const weeks = [
			{ name: 'cuts', done: 22, limit: 20 },
			{ name: 'starts', done: 33, limit: 20 },
			{ name: 'contacts', done: 61, limit: 60 },
		]
		expect(flat({ ramp: weeks }).causes[0]!.evidence).toBe('33 starts in seven days; 20 was the limit')
	})
	it('a thing that is new on the day itself, in no earlier session, is none', () =>
		expect(flat({ newHard: [fresh('a', 0), fresh('b', 10)] }).causes).toEqual([]))
	it('tells the athlete’s own pattern, and weighs it', () => {
		const twice = [{ cause: 'match' as const }, { cause: 'match' as const }]
		expect(flat(match(36), twice).causes[0]!.evidence).toBe('90 minutes, effort 7; third time for this athlete')
		expect(ids(flat({ ...match(30), ...spacing(10) }))).toEqual(['spacing', 'match'])
		expect(ids(flat({ ...match(30), ...spacing(10) }, twice))).toEqual(['match', 'spacing'])
		// Named before, and not there today: not said.
		expect(flat({}, twice).causes).toEqual([])
	})
})

describe('why good', () => {
	it.each<[string, CauseId, Partial<Around>, Partial<Around>]>([
		['an unloading week', 'unloading', { unloading: true }, {}],
		['days without hard work', 'fresh', { hoursSinceHard: 90 }, { hoursSinceHard: 89 }],
		['but not after a week away', 'fresh', { hoursSinceHard: 160 }, { hoursSinceHard: 200, awayDays: 8 }],
		['a tail wind', 'wind', { windMps: 1 }, { windMps: 0.9 }],
		['heavy work before', 'aided-before', { aidedBefore: { what: 'Sled 20 m', minutes: 8 } }, {}],
		['getting better', 'improving', { improving: 'faster by 0.09 s since September' }, {}],
	])('finds %s', (_what, cause, at, beside) => {
		expect(ids(good(at))).toEqual([cause])
		expect(ids(good(beside))).toEqual([])
	})
	it.each<[Partial<Around>, string, number]>([
		[{ unloading: true }, 'After an unloading week · less was done on purpose', 0.9],
		[{ hoursSinceHard: 126 }, 'Days without hard work · 5 days since anything hard', 0.525],
		[
			{ hoursSinceHard: 96, awayDays: null },
			'Days without hard work · 4 days since anything hard',
			0.7 * (0.5 + 1 / 24),
		],
		[{ hoursSinceHard: 162, awayDays: 7 }, 'Days without hard work · 7 days since anything hard', 0.7],
		[{ windMps: 2.5 }, 'Tail wind · 2.5 m/s', 0.5625],
		[
			{ aidedBefore: { what: 'Sled 20 m', minutes: 30 } },
			'Heavy or assisted work before · Sled 20 m, 30 min before',
			0.45,
		],
		[{ improving: 'faster by 0.09 s' }, 'Getting better · faster by 0.09 s: the usual lags behind', 0.6],
	])('says and weighs %j', (more, words, weight) => {
		const [cause] = good(more).causes
		expect(`${cause!.title} · ${cause!.evidence}`).toBe(words)
		expect(cause!.weight).toBeCloseTo(weight, 9)
	})
	it('keeps what nobody logged apart here too', () => {
		expect(good({ windMps: null, hoursSinceHard: null }).notKnown).toEqual(['days without hard work', 'wind'])
		expect(good({}).notKnown).toEqual([])
	})
	it('does not look for what makes a day flat', () => expect(ids(good({ ...match(4), ...ramp(40) }))).toEqual([]))
})

describe('reps past the best', () => {
	it('are told from the best on', () => {
		expect(pastBestOf([3.1, 3.04, 3.11, 3.17], 'sprint', 0.02)).toEqual([3.04, 3.11, 3.17])
		expect(pastBestOf([0.4, 0.41, 0.4, 0.36], 'height', 0.01)).toEqual([0.41, 0.36])
	})
	it('are past the limit: 3 % of a time, 5 % of a height', () => {
		// Off the mean of the four before, 3.00 s.
		expect(pastBestOf([3, 3, 3, 3, 3.089], 'sprint', 0.02)).toBeNull()
		expect(pastBestOf([3, 3, 3, 3, 3.09], 'sprint', 0.02)).toEqual([3, 3.09])
		expect(pastBestOf([0.4, 0.4, 0.4, 0.4, 0.381], 'height', 0.003)).toBeNull()
		expect(pastBestOf([0.4, 0.4, 0.4, 0.4, 0.38], 'height', 0.003)).toEqual([0.4, 0.38])
	})
	it('and beyond what the method errs: three standard errors of one rep against four', () => {
		// 0.10 s · √1.25 · 3 = 0.335 s.
		expect(pastBestOf([3, 3, 3, 3, 3.33], 'sprint', 0.1)).toBeNull()
		expect(pastBestOf([3, 3, 3, 3, 3.34], 'sprint', 0.1)).toEqual([3, 3.34])
		expect(pastBestOf([3, 3, 3, 3, 4], 'sprint', null)).toBeNull()
	})
	it('need three reps, and a last one that fell', () => {
		expect(pastBestOf([3, 3.3], 'sprint', 0.02)).toBeNull()
		expect(pastBestOf([3, 3, 3.3, 3.01], 'sprint', 0.02)).toBeNull()
	})
})

it('rests are the median between reps, of three at least', () => {
	const at = (...seconds: number[]) => seconds.map((value) => value * 1000)
	expect(medianGapS(at(0, 100, 210, 500))).toBe(110)
	expect(medianGapS(at(0, 100, 220, 500, 600))).toBe(110)
	expect(medianGapS(at(0, 100, 210))).toBeNull()
})
it('counts in words', () => {
	expect([1, 2, 3, 10, 11, 12, 13, 21, 22, 23, 24, 111].map(ordinal)).toEqual([
		...['first', 'second', 'third', 'tenth', '11th', '12th', '13th', '21st', '22nd', '23rd', '24th', '111th'],
	])
})

/**
 * Flat days of athletes whose cause is known: raw reps, clocks and hours as they would be logged. What is drawn does not
 * know the rule's limits: what is usual lies on the near side of none by more than life does, what is planted is as much
 * as people do. Half of the days carry a second candidate. Seed 20.
 */
describe('simulated flat days', () => {
	const random = new Random(20)
	const from = (low: number, high: number) => low + (high - low) * random.next()
	const pick = <T>(list: readonly T[]): T => list[Math.floor(random.next() * list.length)]!
	/** Times of a line as they come: reps of a steady day, then so many that fall by so much. */
	const reps = (steady: number, falls: number[]) => {
		const able = from(2, 4.5)
		return [
			...Array.from({ length: steady }, () => able + random.normal(0.018)),
			...falls.map((percent) => able * (1 + percent / 100) + random.normal(0.018)),
		]
	}
	const pastOf = (marks: number[]): Around['past'] => {
		const told = pastBestOf(marks, 'sprint', 0.02)
		return told && { what: 'Standing start', kind: 'sprint', marks: told, hoursAgo: from(40, 100) }
	}
	const restsOf = (asked: number, share: number) => {
		let at = 0
		const times = Array.from({ length: 6 }, () => (at += 1000 * asked * share * from(0.9, 1.15)))
		return { askedS: asked, tookS: medianGapS(times)! }
	}
	const usualDay = (): Around => ({
		day: DAY,
		past: pastOf(reps(5 + Math.floor(random.next() * 4), [])),
		newHard: random.chance(0.3) ? [fresh('Depth jump 15 cm', from(20, 140))] : [],
		spacing: random.chance(0.5) ? { kind: 'maximal-sprint', hours: from(45, 120), askedH: 48 } : null,
		outside: random.chance(0.5) ? [{ kind: 'match', hoursAgo: from(54, 160), minutes: 90, rpe: 7 }] : [],
		ramp: [{ name: 'maximal starts', done: from(4, 19), limit: 20 }],
		awayDays: Math.floor(from(2, 7.99)),
		unwell: random.chance(0.1) ? { since: '2026-10-20', until: '2026-11-02' } : null,
		rests: restsOf(pick([120, 180, 240]), from(0.9, 1.5)),
		aidedBefore: null,
		windMps: random.chance(0.5) ? random.normal(0.4) : null,
		unloading: false,
		hoursSinceHard: from(44, 80),
		improving: null,
	})
	const plant: Record<FlatCause, (around: Around) => Around> = {
		'past-best': (around) => ({
			...around,
			past: pastOf(reps(5, random.chance(0.5) ? [from(4, 7)] : [from(2, 4), from(4, 8)])),
		}),
		'new-things': (around) => ({
			...around,
			newHard: [fresh('Depth jump', from(10, 70)), fresh('Full turn', from(10, 70))],
		}),
		spacing: (around) => ({ ...around, ...spacing(from(14, 40)) }),
		match: (around) => ({ ...around, ...match(from(12, 44)) }),
		ramp: (around) => ({ ...around, ...ramp(from(22, 40)) }),
		'first-day-back': (around) => ({ ...around, awayDays: Math.floor(from(9, 40)) }),
		unwell: (around) => ({
			...around,
			...(random.chance(0.5) ? unwell('2026-11-23', null) : unwell('2026-11-15', '2026-11-22')),
		}),
		'short-rests': (around) => ({ ...around, rests: restsOf(pick([120, 180, 240]), from(0.35, 0.65)) }),
		'aided-before': (around) => ({ ...around, aidedBefore: { what: 'Assisted sprint', minutes: from(3, 40) } }),
		wind: (around) => ({ ...around, windMps: -from(1.3, 4) }),
		gym: (around) => ({
			...around,
			outside: [...around.outside, { kind: 'gym', hoursAgo: from(12, 44), minutes: 60, rpe: 8, heavy: true }],
		}),
	}
	const DAYS = 2000
	it('have the planted cause among the first two in nine of ten', () => {
		const found: Record<string, [hits: number, days: number]> = {}
		let hits = 0
		for (let i = 0; i < DAYS; i++) {
			const planted = pick(FLAT_CAUSES)
			let around = usualDay()
			const other = pick(FLAT_CAUSES.filter((one) => one !== planted))
			if (i % 2 === 0) around = plant[other](around)
			around = plant[planted](around)
			const hit = ids(whyOf('flat', around)).slice(0, 2).includes(planted)
			if (hit) hits++
			const [before, days] = found[planted] ?? [0, 0]
			found[planted] = [before + (hit ? 1 : 0), days + 1]
		}
		expect(hits / DAYS).toBeGreaterThanOrEqual(0.9)
		// No cause is one that is hardly ever found.
		for (const [cause, [one, days]] of Object.entries(found)) expect(one / days, cause).toBeGreaterThanOrEqual(0.8)
	})
	it('say that nothing is known in nine of ten where nothing was planted', () => {
		let none = 0
		for (let i = 0; i < DAYS; i++) if (whyOf('flat', usualDay()).causes.length === 0) none++
		expect(none / DAYS).toBeGreaterThanOrEqual(0.9)
	})
})
