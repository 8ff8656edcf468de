import { PLANTS, type School, type SchoolChoices, type SchoolNumbers, boundsOf } from '../vocabulary/school'

type Question = {
	[K in keyof SchoolChoices]: {
		id: K
		question: string
		sides: { id: SchoolChoices[K]; name: string; why: string; does: string }[]
	}
}[keyof SchoolChoices]

/** Where good coaches disagree: each side in a sentence, and what it changes in the verdicts. */
export const QUESTIONS: Question[] = [
	{
		id: 'boxHeight',
		question: 'How high a box?',
		sides: [
			{
				id: 'low',
				name: 'Stay low',
				why: 'Contact is what transfers: only a box whose contact meets the sprint goal trains sprinting.',
				does: 'A depth jump moves up a box only when its contact meets the sprint goal.',
			},
			{
				id: 'climb',
				name: 'Climb',
				why: 'Absorbing from higher builds strength that lower boxes do not.',
				does: 'A passed box opens the next one, up to the highest.',
			},
		],
	},
	{
		id: 'depthJumps',
		question: 'Depth jumps when?',
		sides: [
			{
				id: 'peaking',
				name: 'In peaking',
				why: 'The effect fades with constant use: keep it for when it counts.',
				does: 'Rebounds from a box are closed outside peaking.',
			},
			{
				id: 'peaking-and-intensify',
				name: 'In intensify and peaking',
				why: 'A jump sport needs longer with them.',
				does: 'Rebounds from a box open one phase earlier.',
			},
			{
				id: 'all-year',
				name: 'A little all year',
				why: 'A skill that is left alone for months has to be learned again.',
				does: 'Open in all phases but unloading, at 60 % of the dose outside peaking.',
			},
			{
				id: 'never',
				name: 'Never',
				why: 'For squads that come back from injury or have no supervised box.',
				does: 'Rebounds from a box stay closed.',
			},
		],
	},
	{
		id: 'boxJudgement',
		question: 'Contact or rebound?',
		sides: [
			{
				id: 'rebound-under-ceiling',
				name: 'Rebound under a ceiling',
				why: 'As short as keeps the recoil: a short contact with no height is a tap.',
				does: 'A box is passed when contact is under the ceiling and the index has not fallen beyond noise.',
			},
			{
				id: 'shortest-contact',
				name: 'Shortest contact',
				why: 'The ground decides: time on it is what separates a beginner from an expert.',
				does: 'Contact under the ceiling is enough.',
			},
		],
	},
	{
		id: 'volume',
		question: 'How much?',
		sides: [
			{
				id: 'skill',
				name: 'Skill dose',
				why: 'Few perfect reps, walk back, one hour.',
				does: 'Hard finishing work stays closed.',
			},
			{
				id: 'capacity',
				name: 'Capacity',
				why: 'Athletes who stand long hard work hold their speed late.',
				does: 'Hard finishing work opens as a part of its own.',
			},
		],
	},
	{
		id: 'conditioning',
		question: 'Conditioning how?',
		sides: [
			{
				id: 'shuttles',
				name: 'Sport-shaped shuttles',
				why: 'Efforts of 5–12 s with turns are what the match asks.',
				does: 'Shuttles are open, hard runs of 200–400 m closed.',
			},
			{
				id: 'long-runs',
				name: 'Hard 200–400 m',
				why: 'A large engine carries everything else.',
				does: 'Hard runs are open, shuttles as conditioning closed.',
			},
		],
	},
	{
		id: 'leftRight',
		question: 'A gap between left and right?',
		sides: [
			{
				id: 'close',
				name: 'Close it',
				why: 'Speed rises as the gap shrinks.',
				does: 'A gap that is real and 10 % or more puts a rep of each set on the lagging side, not more in all.',
			},
			{
				id: 'leave',
				name: 'Leave it',
				why: 'Gaps are common and harmless in healthy athletes.',
				does: 'The gap is told, nothing changes.',
			},
		],
	},
	{
		id: 'variety',
		question: 'When a ladder stands still?',
		sides: [
			{
				id: 'same',
				name: 'Same rung until passed',
				why: 'Repetition teaches; change hides whether it did.',
				does: 'After four flat sessions another variation is proposed, not prescribed; a proposal keeps to one form of a jump.',
			},
			{
				id: 'rotate',
				name: 'Rotate variations',
				why: 'A stale stimulus stops working.',
				does: 'After four flat sessions the variation is swapped, same rung; at level 3 a proposal’s jumps change their form week by week.',
			},
		],
	},
	{
		id: 'contrast',
		question: 'Slow before fast?',
		sides: [
			{
				id: 'own-trial',
				name: 'Only after an own trial',
				why: 'It helps some and costs others time and joints.',
				does: 'The contrast ladder is closed until the athlete’s own trial says it helps.',
			},
			{
				id: 'use',
				name: 'Use it',
				why: 'A heavy effort wakes up the fast one that follows.',
				does: 'The contrast ladder is open from its level on.',
			},
		],
	},
	{
		id: 'resistance',
		question: 'Pulling loads?',
		sides: [
			{
				id: 'heavy-to-light',
				name: 'Heavy first, then lighter',
				why: 'Force first, speed towards the season.',
				does: 'The variation offered is heavy in accumulate, moderate in intensify, light in peaking.',
			},
			{
				id: 'light-only',
				name: 'Light only',
				why: 'What costs speed teaches slowness.',
				does: 'Only the light pull is ever offered.',
			},
		],
	},
	{
		id: 'goodDay',
		question: 'A very good day?',
		sides: [
			{
				id: 'stop',
				name: 'Stop at the peak',
				why: 'The best rep is a good last one.',
				does: 'A set ended for a good day counts as done.',
			},
			{
				id: 'finish',
				name: 'Finish the plan',
				why: 'The plan was made with a clear head.',
				does: 'Reps left out on a good day are reps not done.',
			},
		],
	},
	{
		id: 'shapes',
		question: 'Shapes before the clock?',
		sides: [
			{
				id: 'clock',
				name: 'By the clock',
				why: 'What is not timed is easily seen as one would like to see it.',
				does: 'A timed rung is passed by times alone; without any it is unclear.',
			},
			{
				id: 'eye',
				name: 'By eye, where there is no clock',
				why: 'Posture first, speed second: a good shape is worth going on from.',
				does: 'A timed rung that nobody timed is passed by reps judged good. Where there are times, they decide.',
			},
		],
	},
	{
		id: 'assisted',
		question: 'Faster than alone?',
		sides: [
			{
				id: 'none',
				name: 'Never',
				why: 'Nobody is pulled whose own top speed is not yet long steady.',
				does: 'Runs with a pull ahead stay closed.',
			},
			{
				id: 'to-10',
				name: 'Up to 10 %',
				why: 'A little more than the own speed is enough to feel it; more makes people brake.',
				does: 'Pulled runs are open up to 10 % over the own top speed.',
			},
			{
				id: 'to-20',
				name: 'Up to 20 %, when it is comfortable',
				why: 'Who stays loose at 10 % learns something more at 20.',
				does: 'From 10 % on the next step opens by comfort, up to 20 %.',
			},
		],
	},
	{
		id: 'beginners',
		question: 'How much for a beginner?',
		sides: [
			{
				id: 'fewer',
				name: 'The same, fewer',
				why: 'One form for everybody is easy to teach; a beginner does less of it.',
				does: 'At level 1 a drill asks for about two thirds of its dose.',
			},
			{
				id: 'more-easy',
				name: 'The easy form, more often',
				why: 'Many easy good reps teach more than few hard poor ones.',
				does: 'At level 1 the easy form stands in where the drill names one, at its own, larger dose.',
			},
		],
	},
	{
		id: 'plants',
		question: 'Which take-offs?',
		sides: [
			{
				id: 'one',
				name: 'The one used most',
				why: 'One way to leave the ground, done well, before another.',
				does: 'The take-off ladder has only the one said to be used most.',
			},
			{
				id: 'sport',
				name: 'Those of the sport',
				why: 'What is never used in a match costs minutes.',
				does: 'The take-off ladder has those ticked as the sport’s.',
			},
			{
				id: 'all',
				name: 'All four',
				why: 'The one that lags shows where height is lost.',
				does: 'The take-off ladder has all four.',
			},
		],
	},
	{
		id: 'finisher',
		question: 'A hard part at the end?',
		sides: [
			{
				id: 'none',
				name: 'None',
				why: 'The session ends while it is still fast.',
				does: 'A proposal ends with the close.',
			},
			{
				id: 'runs',
				name: 'General work',
				why: 'Carries and runs for those who must stand long hard work.',
				does: 'A proposal has the general capacity ladder before its close, the first to go when minutes are short.',
			},
			{
				id: 'shuttles',
				name: 'Shuttles',
				why: 'Tired in the shape of the sport, or not at all.',
				does: 'A proposal has repeat speed before its close.',
			},
			{
				id: 'throws',
				name: 'Throws to tire',
				why: 'Hard for the whole body and easy on the legs.',
				does: 'A proposal has slams before its close.',
			},
		],
	},
	{
		id: 'slowWork',
		question: 'Slow work for tendons?',
		sides: [
			{
				id: 'need',
				name: 'Who needs it',
				why: 'It takes time that others use better.',
				does: 'A proposed tendon day has lines for who is stiff, fast and often hurt, and for who has something at a tendon.',
			},
			{
				id: 'everybody',
				name: 'Everybody',
				why: 'Tendons adapt slowly: who waits for a complaint is late.',
				does: 'A proposed tendon day has lines for all; half of them for who is strong and slow.',
			},
		],
	},
	{
		id: 'returnPulls',
		question: 'First runs on the way back?',
		sides: [
			{
				id: 'free',
				name: 'Run free',
				why: 'Slow running is the easiest form of what comes back.',
				does: 'After the drills the way back to running goes on at 60 %.',
			},
			{
				id: 'pulls-first',
				name: 'Pull first',
				why: 'A moderate pull keeps the steps short and the speed low by itself.',
				does: 'A few short, moderate pulls are a step of their own before free running at 60 %.',
			},
		],
	},
]

interface SchoolNumber {
	id: keyof SchoolNumbers
	name: string
	unit: string
}

/** What a school may be tuned to, in words; how far stands in the vocabulary. Safety numbers are only as loose as the upper bound. */
const SCHOOL_NUMBERS: SchoolNumber[] = [
	{ id: 'passCeilingLevel2Ms', name: 'Contact on a box to pass, level 2', unit: 'ms' },
	{ id: 'passCeilingLevel3Ms', name: 'Contact on a box to pass, level 3', unit: 'ms' },
	{ id: 'sprintGoalMs', name: 'Sprint goal of contact', unit: 'ms' },
	{ id: 'highestBoxCm', name: 'Highest box', unit: 'cm' },
	{ id: 'dropOffSpeedPercent', name: 'Drop-off that ends a set, speed', unit: '%' },
	{ id: 'dropOffRepeatPercent', name: 'Drop-off, repeat speed', unit: '%' },
	{ id: 'dropOffJumpPercent', name: 'Drop-off, jump height', unit: '%' },
	{ id: 'rampPercent', name: 'Growth from week to week', unit: '%' },
	{ id: 'spacingH', name: 'Between two days of one kind', unit: 'h' },
	{ id: 'weeksToUnloading', name: 'Trained weeks until one unloads', unit: 'weeks' },
	{ id: 'carriedSpeedLossPercent', name: 'Speed loss that takes a carried load off', unit: '%' },
	{ id: 'ballSpeedLossPercent', name: 'Speed loss that steps the ball down', unit: '%' },
	{ id: 'advancesPerSession', name: 'Advances in one session', unit: '' },
]

export const NUMBER_BOUNDS = SCHOOL_NUMBERS.map((number) => ({ ...number, ...boundsOf(number.id) }))

/** The default school: few perfect reps, low boxes judged by contact, stop at the peak. Numbers are our setting. */
export const QUALITY_FIRST: School = {
	id: 'quality-first',
	version: 6,
	name: 'Quality first',
	about: 'Few perfect reps, low boxes judged by contact time, stop at the peak.',
	choices: {
		boxHeight: 'low',
		depthJumps: 'peaking',
		boxJudgement: 'rebound-under-ceiling',
		volume: 'skill',
		conditioning: 'shuttles',
		leftRight: 'close',
		variety: 'same',
		contrast: 'own-trial',
		resistance: 'heavy-to-light',
		goodDay: 'stop',
		returnPulls: 'free',
		shapes: 'clock',
		assisted: 'to-10',
		beginners: 'fewer',
		plants: 'all',
		finisher: 'none',
		slowWork: 'everybody',
	},
	numbers: {
		passCeilingLevel2Ms: 250,
		passCeilingLevel3Ms: 200,
		sprintGoalMs: 150,
		highestBoxCm: 45,
		dropOffSpeedPercent: 3,
		dropOffRepeatPercent: 5,
		dropOffJumpPercent: 5,
		rampPercent: 15,
		spacingH: 48,
		weeksToUnloading: 4,
		carriedSpeedLossPercent: 5,
		ballSpeedLossPercent: 10,
		advancesPerSession: 1,
	},
	plants: [...PLANTS],
	fastDayOffer: true,
}

export const JUMP_LADDER: School = {
	...QUALITY_FIRST,
	id: 'jump-ladder',
	version: 5,
	name: 'Jump ladder',
	about: 'For squads that jump: higher boxes, rebounds from intensify on.',
	choices: {
		...QUALITY_FIRST.choices,
		boxHeight: 'climb',
		depthJumps: 'peaking-and-intensify',
		shapes: 'eye',
		assisted: 'none',
		slowWork: 'need',
	},
	numbers: {
		...QUALITY_FIRST.numbers,
		passCeilingLevel3Ms: 220,
		sprintGoalMs: 180,
		highestBoxCm: 75,
	},
}

export const CAPACITY_BASE: School = {
	...QUALITY_FIRST,
	id: 'capacity-base',
	version: 5,
	name: 'Capacity base',
	about: 'Stand long hard work: wider limits, a finisher, two advances a session.',
	choices: {
		...QUALITY_FIRST.choices,
		depthJumps: 'all-year',
		volume: 'capacity',
		conditioning: 'long-runs',
		goodDay: 'finish',
		beginners: 'more-easy',
		plants: 'sport',
		finisher: 'runs',
	},
	numbers: {
		...QUALITY_FIRST.numbers,
		dropOffSpeedPercent: 5,
		dropOffRepeatPercent: 8,
		dropOffJumpPercent: 8,
		rampPercent: 20,
		weeksToUnloading: 6,
		carriedSpeedLossPercent: 10,
		ballSpeedLossPercent: 15,
		advancesPerSession: 2,
	},
	fastDayOffer: false,
}

export const RETURN_AND_PROTECT: School = {
	...QUALITY_FIRST,
	id: 'return-and-protect',
	version: 5,
	name: 'Return and protect',
	about: 'After injury or a long break: narrow limits, long spacing, no box rebounds.',
	choices: {
		...QUALITY_FIRST.choices,
		depthJumps: 'never',
		shapes: 'eye',
		assisted: 'none',
		beginners: 'more-easy',
		plants: 'one',
	},
	numbers: {
		...QUALITY_FIRST.numbers,
		highestBoxCm: 30,
		dropOffSpeedPercent: 2,
		dropOffRepeatPercent: 4,
		dropOffJumpPercent: 4,
		rampPercent: 10,
		spacingH: 72,
		weeksToUnloading: 3,
		carriedSpeedLossPercent: 3,
	},
	fastDayOffer: false,
}

export const SCHOOLS: School[] = [QUALITY_FIRST, JUMP_LADDER, CAPACITY_BASE, RETURN_AND_PROTECT]
