import type { Picked } from '../../core/plan/entry-parts'
import type { Dose, Parameters } from '../../core/vocabulary/dose'
import type { Ground } from '../../core/field-map/types'
import type { TrialKind, TrialPlan } from '../../core/record/trial'
import type { AthleteType, Level, Phase, Region } from '../../core/vocabulary/words'

export type DemoSquad = 'open' | 'women' | 'u17'

export interface DemoAthlete {
	name: string
	squad: DemoSquad
	age: number
	legM: number
	/** Maximal sprinting speed, m/s, and time constant, s: the athlete's own model. */
	mss: number
	tau: number
	/** Contact of a rebound from a low box, s, and flight, s. */
	contactS: number
	flightS: number
	level: Level
	/** First rungs, nine weeks ago. */
	start: { acceleration: string; stiffness: string; shock: string; cut: string }
	/** Chance that a set looks good, and a tenth: in the first week so much is missing. */
	skill: number
	method?: 'gate' | 'stopwatch'
	/** In the last two sessions the times fall by this share from this rep on. */
	fallsFromRep?: number
	/** Share of top speed gained over the nine weeks; a little where not said. */
	gains?: number
	/** Share by which jumps get longer over the nine weeks. */
	jumpGains?: number
	/** Share by which times are longer and jumps shorter on a day within two of a match. */
	flatAfterMatch?: number
	/** Seconds lost from so far on: where the time goes. */
	slowFrom?: { metres: number; seconds: number }
	/** Pain by how many of the squad's sessions ago it was (1 is the last, 0 the one under way). */
	pains?: { ago: number; region: Region; side: 'left' | 'right'; score: number; entry?: string }[]
	/** Not there from…to so many of the squad's sessions ago. */
	away?: [number, number]
	/** What stood in the way, opened and ended so many of the squad's sessions ago; without an end it stands. */
	care?: {
		kind: 'restriction' | 'worry' | 'illness'
		/** Of an illness none. */
		region: Region | null
		drillId?: string
		opened: number
		ended?: number
		note: string
	}[]
	/** In the session that waits for its review one time was typed a second too short. */
	mistypes?: true
	/** Share by which the right foot is longer on the ground. */
	rightLonger?: number
	massKg?: number
	/** How they are built, by the coach. */
	type?: AthleteType
}

const novice = { acceleration: 'wall', stiffness: 'calf-hold', shock: 'landing-15', cut: 'wide' }
const young = { acceleration: 'a-run', stiffness: 'step-and-stick', shock: 'landing-15', cut: 'wide' }
const middle = { acceleration: 'standing-10', stiffness: 'pogo', shock: 'landing-15', cut: 'wide' }
const trained = { acceleration: 'standing-10', stiffness: 'pogo', shock: 'landing-30', cut: 'sharp-wide' }
const top = { acceleration: 'reaction-20', stiffness: 'single-leg-pogo', shock: 'depth-30', cut: 'full-180' }

/** An invented island club for ultimate: three squads, 28 invented people. */
export const DEMO_ATHLETES: DemoAthlete[] = [
	{
		name: 'Ilka Moreau',
		squad: 'open',
		age: 24,
		legM: 0.91,
		mss: 8.5,
		tau: 1.12,
		contactS: 0.165,
		flightS: 0.49,
		level: 2,
		start: { ...trained, shock: 'pause-30' },
		skill: 0.97,
		jumpGains: 0.1,
	},
	{
		name: 'Tadeo Brandt',
		squad: 'open',
		age: 27,
		legM: 0.93,
		mss: 9.0,
		tau: 1.2,
		contactS: 0.19,
		flightS: 0.52,
		level: 2,
		start: { ...trained, acceleration: 'three-point-20' },
		skill: 0.9,
		fallsFromRep: 5,
	},
	{
		name: 'Wren Achterberg',
		squad: 'open',
		age: 31,
		legM: 0.88,
		mss: 8.1,
		tau: 1.22,
		contactS: 0.2,
		flightS: 0.45,
		level: 2,
		start: middle,
		skill: 0.9,
		method: 'stopwatch',
		pains: [{ ago: 1, region: 'groin', side: 'left', score: 3 }],
	},
	{
		name: 'Sefa Lindqvist',
		squad: 'open',
		age: 22,
		legM: 0.9,
		mss: 8.3,
		tau: 1.18,
		contactS: 0.185,
		flightS: 0.47,
		level: 2,
		start: { ...trained, acceleration: 'three-point-20' },
		skill: 1.02,
		flatAfterMatch: 0.07,
		pains: [{ ago: 1, region: 'shoulder', side: 'right', score: 2 }],
	},
	{
		name: 'Bo Hartigan',
		squad: 'open',
		age: 25,
		legM: 0.95,
		mss: 8.8,
		tau: 1.19,
		contactS: 0.19,
		flightS: 0.5,
		level: 2,
		start: trained,
		skill: 0.92,
		away: [4, 7],
		care: [{ kind: 'restriction', region: 'ankle', opened: 7, ended: 3, note: 'Rolled the left ankle on the beach' }],
	},
	{
		name: 'Nils Pereira',
		squad: 'open',
		age: 23,
		legM: 0.94,
		mss: 9.2,
		tau: 1.15,
		contactS: 0.18,
		flightS: 0.51,
		level: 2,
		start: { ...trained, acceleration: 'three-point-20' },
		skill: 0.92,
		pains: [{ ago: 1, region: 'back-thigh', side: 'left', score: 2, entry: 'acceleration' }],
		care: [
			{
				kind: 'worry',
				region: 'back-thigh',
				drillId: 'three-point-start',
				opened: 1,
				note: 'Pulls at the start, fine at speed',
			},
		],
	},
	{
		name: 'Amaru Fenn',
		squad: 'open',
		age: 29,
		legM: 0.89,
		mss: 8.6,
		tau: 1.2,
		contactS: 0.195,
		flightS: 0.48,
		level: 3,
		start: { ...trained, stiffness: 'single-leg-pogo', cut: 'sharp-wide' },
		skill: 0.98,
		rightLonger: 0.16,
	},
	{
		name: 'Ruadhán Okonjo',
		squad: 'open',
		age: 26,
		legM: 0.97,
		mss: 9.5,
		tau: 1.1,
		contactS: 0.15,
		flightS: 0.55,
		level: 3,
		start: top,
		skill: 0.97,
	},
	{
		name: 'Mirek Salonen',
		type: 'slow',
		massKg: 103,
		squad: 'open',
		age: 28,
		legM: 0.96,
		mss: 7.8,
		tau: 1.35,
		contactS: 0.24,
		flightS: 0.46,
		level: 2,
		start: { ...middle, shock: 'pause-15' },
		skill: 0.9,
		gains: 0,
	},
	{
		name: 'Kahu Rasmussen',
		type: 'stiff',
		squad: 'open',
		age: 24,
		legM: 0.92,
		mss: 9.4,
		tau: 1.16,
		contactS: 0.16,
		flightS: 0.5,
		level: 3,
		start: { ...trained, acceleration: 'three-point-30' },
		skill: 0.9,
		slowFrom: { metres: 20, seconds: 0.09 },
		pains: [
			{ ago: 9, region: 'calf', side: 'right', score: 2 },
			{ ago: 6, region: 'calf', side: 'right', score: 2 },
			{ ago: 3, region: 'foot', side: 'right', score: 1 },
		],
	},
	{
		name: 'Jovan Adebayo',
		squad: 'open',
		age: 33,
		legM: 0.93,
		mss: 8.4,
		tau: 1.25,
		contactS: 0.21,
		flightS: 0.46,
		level: 2,
		start: trained,
		skill: 0.88,
		away: [6, 11],
	},
	{
		name: 'Emre Castellane',
		squad: 'open',
		age: 19,
		legM: 0.9,
		mss: 8.0,
		tau: 1.3,
		contactS: 0.22,
		flightS: 0.43,
		level: 1,
		start: novice,
		skill: 0.82,
	},

	{
		name: 'Paola Whitcombe',
		squad: 'women',
		age: 26,
		legM: 0.86,
		mss: 7.9,
		tau: 1.15,
		contactS: 0.18,
		flightS: 0.45,
		level: 2,
		start: trained,
		skill: 0.94,
	},
	{
		name: 'Anneke Tavares',
		squad: 'women',
		age: 29,
		legM: 0.88,
		mss: 8.2,
		tau: 1.14,
		contactS: 0.175,
		flightS: 0.47,
		level: 3,
		start: { ...trained, acceleration: 'three-point-20' },
		skill: 0.94,
		away: [1, 12],
	},
	{
		name: 'Yuna Bergström',
		squad: 'women',
		age: 21,
		legM: 0.84,
		mss: 7.6,
		tau: 1.2,
		contactS: 0.2,
		flightS: 0.42,
		level: 2,
		start: middle,
		skill: 0.9,
	},
	{
		name: 'Odile Kamara',
		squad: 'women',
		age: 24,
		legM: 0.89,
		mss: 8.4,
		tau: 1.13,
		contactS: 0.17,
		flightS: 0.48,
		level: 2,
		start: { ...trained, stiffness: 'single-leg-pogo' },
		skill: 0.93,
	},
	{
		name: 'Teuila Novak',
		squad: 'women',
		age: 30,
		legM: 0.87,
		mss: 7.5,
		tau: 1.24,
		contactS: 0.21,
		flightS: 0.43,
		level: 2,
		start: middle,
		skill: 0.87,
		pains: [
			{ ago: 5, region: 'knee', side: 'right', score: 2 },
			{ ago: 2, region: 'calf', side: 'left', score: 3 },
		],
	},
	{
		name: 'Saoirse Ilves',
		squad: 'women',
		age: 23,
		legM: 0.85,
		mss: 7.8,
		tau: 1.19,
		contactS: 0.19,
		flightS: 0.44,
		level: 2,
		start: middle,
		skill: 0.92,
		care: [{ kind: 'illness', region: null, opened: 1, note: 'A fever since the weekend' }],
	},
	{
		name: 'Maren Oyelaran',
		squad: 'women',
		age: 27,
		legM: 0.9,
		mss: 8.0,
		tau: 1.18,
		contactS: 0.185,
		flightS: 0.46,
		level: 2,
		start: trained,
		skill: 0.91,
		pains: [{ ago: 0, region: 'ankle', side: 'left', score: 6 }],
	},
	{
		name: 'Zita Halvorsen',
		squad: 'women',
		age: 20,
		legM: 0.86,
		mss: 7.3,
		tau: 1.3,
		contactS: 0.23,
		flightS: 0.4,
		level: 1,
		start: novice,
		skill: 0.8,
	},

	{
		name: 'Leto Marchetti',
		squad: 'u17',
		age: 16,
		legM: 0.9,
		mss: 8.0,
		tau: 1.22,
		contactS: 0.2,
		flightS: 0.45,
		level: 1,
		start: young,
		skill: 0.88,
	},
	{
		name: 'Freya Nakamura',
		mistypes: true,
		squad: 'u17',
		age: 15,
		legM: 0.84,
		mss: 7.4,
		tau: 1.22,
		contactS: 0.19,
		flightS: 0.43,
		level: 1,
		start: young,
		skill: 0.9,
	},
	{
		name: 'Tomasz Eriksen',
		squad: 'u17',
		age: 16,
		legM: 0.92,
		mss: 8.2,
		tau: 1.24,
		contactS: 0.21,
		flightS: 0.46,
		level: 1,
		start: young,
		skill: 0.85,
	},
	{
		name: 'Inés Achebe',
		squad: 'u17',
		age: 15,
		legM: 0.85,
		mss: 7.5,
		tau: 1.2,
		contactS: 0.2,
		flightS: 0.43,
		level: 1,
		start: young,
		skill: 0.9,
		pains: [{ ago: 1, region: 'knee', side: 'left', score: 3, entry: 'shock' }],
	},
	{
		name: 'Rafe Lindholm',
		squad: 'u17',
		age: 14,
		legM: 0.86,
		mss: 7.2,
		tau: 1.3,
		contactS: 0.23,
		flightS: 0.4,
		level: 1,
		start: young,
		skill: 0.8,
	},
	{
		name: 'Nia Quintero',
		squad: 'u17',
		age: 16,
		legM: 0.87,
		mss: 7.7,
		tau: 1.2,
		contactS: 0.19,
		flightS: 0.45,
		level: 1,
		start: young,
		skill: 0.93,
	},
	{
		name: 'Oskar Manu',
		squad: 'u17',
		age: 15,
		legM: 0.89,
		mss: 7.6,
		tau: 1.28,
		contactS: 0.22,
		flightS: 0.42,
		level: 1,
		start: young,
		skill: 0.6,
	},
	{
		name: 'Lumi Ferreira',
		squad: 'u17',
		age: 14,
		legM: 0.82,
		mss: 7.0,
		tau: 1.3,
		contactS: 0.22,
		flightS: 0.39,
		level: 1,
		start: novice,
		skill: 0.84,
	},
]

export interface DemoSquadPlan {
	key: DemoSquad
	name: string
	place: string
	startTime: string
	minutes: number
	/** Days ago of the squad's two weekly sessions, counted back from today; a negative one lies ahead. */
	offsets: [number, number]
	phaseNow: Phase
	/** Today's session has begun. */
	underWay?: boolean
	/** The next four weeks are planned as a block, with tests at its end. */
	block?: boolean
	/** The weeks gone by were two blocks. */
	pastBlocks?: boolean
}
export const DEMO_SQUADS: DemoSquadPlan[] = [
	{
		key: 'open',
		name: 'Open squad',
		place: 'Lower field by the sea, grass',
		startTime: '17:30',
		minutes: 90,
		offsets: [0, 4],
		phaseNow: 'peaking',
		pastBlocks: true,
	},
	{
		key: 'women',
		name: 'Women’s squad',
		place: 'Lower field by the sea, grass',
		startTime: '18:00',
		minutes: 90,
		offsets: [0, 3],
		phaseNow: 'intensify',
		underWay: true,
	},
	{
		key: 'u17',
		name: 'Under 17',
		place: 'Gravel yard',
		startTime: '16:30',
		minutes: 75,
		offsets: [1, 5],
		phaseNow: 'accumulate',
		block: true,
	},
]

/** Whom to call for each in turn; every number is made up. */
export const DEMO_CONTACTS = ['Mother', 'Father', 'Partner', 'Sister', 'Flatmate']
export const DEMO_ADDRESSES = [
	{ place: 'Lower field by the sea, grass', address: 'Saltmarsh quay 4, through the gate beside the boathouse' },
	{ place: 'Gravel yard', address: 'Saltmarsh mill lane 11, yard behind the school' },
]

/** Nine weeks: a first block with its unloading week, and the block the club is in now. Index 0 is the oldest. */
export const DEMO_PHASES: Phase[] = [
	'accumulate',
	'accumulate',
	'intensify',
	'unloading',
	'accumulate',
	'accumulate',
	'intensify',
	'peaking',
	'peaking',
]

/** What every session holds, in order: each item a ladder, or a drill for everybody. */
/** Where they train: the field, and the yard for when the grass is closed. */
const drill = (drillId: string): Picked => ({ drillId, ladderId: null })
const ladder = (ladderId: string): Picked => ({ ladderId })

export const DEMO_GROUNDS: Omit<Ground, 'id'>[] = [
	{ name: 'Lower field by the sea, grass', lengthM: 100, widthM: 62, surface: 'grass' },
	{ name: 'Gravel yard', lengthM: 42, widthM: 20, surface: 'gravel' },
]

/** The parts of an ordinary evening; a ladder gives everybody their own rung. */
export interface DemoPart {
	part: string
	of: Picked
	dose: Dose
	parameters?: Parameters
	lanes?: number
	seniorOnly?: boolean
}
export const DEMO_PARTS: DemoPart[] = [
	{ part: 'Prepare', of: drill('range-of-motion'), dose: { sets: 1, reps: 1 } },
	{
		part: 'Rhythm and stiffness',
		of: drill('relaxed-skip'),
		dose: { sets: 2, reps: 1 },
		parameters: { distanceM: 20 },
	},
	{ part: 'Rhythm and stiffness', of: ladder('stiffness'), dose: { sets: 3, reps: 8 }, lanes: 4 },
	{ part: 'Acceleration', of: ladder('acceleration'), dose: { sets: 1, reps: 6 }, lanes: 2 },
	{ part: 'Jumps', of: ladder('shock'), dose: { sets: 3, reps: 5 }, lanes: 3 },
	{
		part: 'Jumps',
		of: drill('alternate-bounds'),
		dose: { sets: 3, reps: 1 },
		parameters: { distanceM: 20 },
		lanes: 2,
		seniorOnly: true,
	},
	{ part: 'Jumps', of: drill('broad-jump'), dose: { sets: 3, reps: 5 }, lanes: 3 },
	{ part: 'Cuts', of: ladder('cut'), dose: { sets: 3, reps: 3 } },
	{ part: 'Throws', of: drill('overhead-throw'), dose: { sets: 2, reps: 4 }, parameters: { ballKg: 3 }, lanes: 3 },
	{ part: 'Close', of: drill('easy-close'), dose: { sets: 1, reps: 1 } },
]

/** Who was tested at the gates, how many days ago: at the start of each of the two blocks and last week. */
export const DEMO_TESTS = {
	athletes: ['Ilka Moreau', 'Nils Pereira', 'Ruadhán Okonjo', 'Odile Kamara'],
	daysAgo: [59, 31, 5],
}

/** What else was measured at the bench: it sets lines of these athletes. */
export const DEMO_BENCH: {
	athlete: string
	daysAgo: number
	calculation: string
	method: string
	input: Record<string, unknown>
}[] = [
	{
		athlete: 'Amaru Fenn',
		daysAgo: 12,
		calculation: 'drop-jump-series',
		method: 'mat',
		input: {
			contact_ceiling_s: 0.15,
			jumps: [
				{ box_m: 0.15, contact_time_s: 0.146, flight_time_s: 0.43 },
				{ box_m: 0.15, contact_time_s: 0.149, flight_time_s: 0.44 },
				{ box_m: 0.3, contact_time_s: 0.168, flight_time_s: 0.46 },
				{ box_m: 0.3, contact_time_s: 0.172, flight_time_s: 0.45 },
			],
		},
	},
	{
		athlete: 'Ilka Moreau',
		daysAgo: 9,
		calculation: 'resisted-load',
		method: 'gate',
		input: {
			loads: [
				{ load_kg: 0, velocity_mps: 8.1 },
				{ load_kg: 10, velocity_mps: 7.3 },
				{ load_kg: 20, velocity_mps: 6.5 },
				{ load_kg: 30, velocity_mps: 5.8 },
			],
			target_decrement: 0.25,
		},
	},
	{
		athlete: 'Ilka Moreau',
		daysAgo: 9,
		calculation: 'steps',
		method: 'film',
		input: { distance_m: 20, time_s: 2.46, steps: 9.4, leg_length_m: 0.88 },
	},
]

/** Trials in the squads' past sessions: one that was ended with its answers, one that has only begun. */
export interface DemoTrial {
	squad: DemoSquad
	question: string
	kind: TrialKind
	plan: Pick<TrialPlan, 'outcome' | 'reps' | 'treatment' | 'waitsMin'>
	/** Who takes part, and by what share it truly makes them faster. */
	athletes: Record<string, number>
	/** In so many of the squad's last sessions. */
	sessions: number
	ended: boolean
	/** Of its order of days and of what chance does in it. */
	seed: number
}
const shortStart = (reps: number, waitsMin: number[]) => ({
	outcome: {
		drillId: 'standing-start',
		parameters: { distanceM: 15 },
		kind: 'sprint' as const,
		method: 'gate' as const,
	},
	reps,
	waitsMin,
})
export const DEMO_TRIALS: DemoTrial[] = [
	{
		squad: 'open',
		question: 'Does a heavy pull five minutes before make the start faster?',
		kind: 'heavy-before',
		plan: { ...shortStart(4, [5]), treatment: { drillId: 'resisted-start', dose: { sets: 1, reps: 2 } } },
		athletes: { 'Kahu Rasmussen': 0.022, 'Amaru Fenn': 0 },
		sessions: 18,
		ended: true,
		seed: 4203,
	},
	{
		squad: 'women',
		question: 'Does “push the ground away” make the first fifteen metres faster?',
		kind: 'cue',
		plan: { ...shortStart(2, [0]), treatment: null },
		athletes: { 'Odile Kamara': 0.004, 'Paola Whitcombe': 0.004 },
		sessions: 7,
		ended: false,
		seed: 4300,
	},
]
