import type { Quantity } from '../vocabulary/entry'
import type { SchoolChoices } from '../vocabulary/school'
import type { DrillPiece, LadderPiece, Theme, ThemePiece } from '../vocabulary/theme'
import type { Level, Quality } from '../vocabulary/words'

const ladder = (part: string, ladderId: string, quantity: Quantity | null): LadderPiece => ({
	part,
	ladderId,
	quantity,
})
const forms = (part: string, quantity: Quantity, ...levels: readonly (readonly [Level, string])[]): ThemePiece => ({
	part,
	forms: levels.map(([level, drillId]) => ({ level, drillId })),
	quantity,
})
const starts = (part: string) => forms(part, 'fastMetres', [1, 'standing-start'])
// At level 3 the forms take turns where the school rotates.
const forward = (part: string) =>
	forms(part, 'contacts', [1, 'broad-jump'], [2, 'repeated-broad-jump'], [3, 'repeated-broad-jump'], [3, 'bunny-hop'])
const sideways = (part: string) =>
	forms(part, 'contacts', [1, 'lateral-stick'], [2, 'lateral-reach'], [3, 'lateral-reach'], [3, 'lateral-triple'])
const upward = (part: string) =>
	forms(
		part,
		'contacts',
		[1, 'countermovement-jump'],
		[2, 'single-leg-pogo'],
		[3, 'single-leg-pogo'],
		[3, 'squat-jump'],
	)
const pogos = (part: string) =>
	forms(part, 'contacts', [1, 'pogo'], [2, 'pogo-for-height'], [3, 'pogo-for-height'], [3, 'single-leg-pogo'])
const sixty = (part: string) => forms(part, 'cuts60', [1, 'sharp-wide-cut'])
const springs = [ladder('Springs', 'stiffness', 'contacts'), pogos('Springs')]
const jumps = [forward('Jumps'), upward('Jumps')]
const fromLegs = (part: string) => forms(part, 'throws', [1, 'standing-chest-push'], [2, 'underhand-throw'])
const throws = [ladder('Throws', 'throw', 'throws'), fromLegs('Throws')]
const short = (part: string) => [ladder(part, 'acceleration', 'fastMetres'), starts(part)]

/** What a session begins with, whatever it is about. */
export const WARM_UP: readonly DrillPiece[] = [
	{ part: 'Warm-up', drillId: 'easy-run', parameters: { distanceM: 600 } },
	{ part: 'Warm-up', drillId: 'leg-swings' },
	{ part: 'Warm-up', drillId: 'strides' },
]
export const RHYTHM: LadderPiece = ladder('Rhythm', 'skip-rhythm', null)
/** What a session ends with. */
export const CLOSE: DrillPiece = { part: 'Close', drillId: 'easy-close' }

/** A hard part at the end, by the school; null where it wants none. */
export const FINISHERS: Record<SchoolChoices['finisher'], LadderPiece | DrillPiece | null> = {
	none: null,
	runs: ladder('Finisher', 'capacity', null),
	shuttles: ladder('Finisher', 'repeat-speed', null),
	throws: { part: 'Finisher', drillId: 'floor-slam', dose: { sets: 3, reps: 8 } },
}

/** What keeps a quality that is not the day's in a few minutes: one piece each. */
const KEEPING: Record<Quality, LadderPiece> = {
	sprint: ladder('Starts, kept', 'acceleration', 'fastMetres'),
	plyometric: ladder('Springs, kept', 'stiffness', 'contacts'),
	agility: ladder('Cuts, kept', 'cut', 'cuts60'),
	throw: ladder('Throws, kept', 'throw', 'throws'),
}

/** A hard day: the warm-up and rhythm before it, what is neither main nor second kept, the close after it. */
const hard = (
	id: string,
	name: string,
	[main, second]: readonly [Quality, Quality],
	about: string,
	pieces: ThemePiece[],
	inBlock: Theme['inBlock'] = {},
): Theme => ({
	id,
	version: 1,
	name,
	about,
	role: 'hard',
	main,
	second,
	opening: [...WARM_UP, RHYTHM],
	pieces,
	kept: (Object.keys(KEEPING) as Quality[])
		.filter((quality) => quality !== main && quality !== second)
		.map((quality) => KEEPING[quality]),
	closing: [CLOSE],
	inBlock,
})

/** Every try of a test is a fresh one [common practice, no source]. */
const TRY_REST = { repsS: 60, setsS: 60 }
const FULL_REST = { repsS: 240, setsS: 240 }
const attempts = (drillId: string, reps: number, more: object = {}): ThemePiece => ({
	part: 'Tests',
	drillId,
	dose: { sets: 1, reps },
	rest: TRY_REST,
	...more,
})

/**
 * The themes every club starts with [our setting; what belongs together and in which order is common practice, no
 * source].
 */
export const THEMES: readonly Theme[] = [
	hard(
		'acceleration',
		'Acceleration',
		['sprint', 'plyometric'],
		'Starting as a skill: short runs with the walk back as rest, and jumps forward, which push the same way.',
		[...short('Acceleration'), forward('Jumps forward')],
		{ accumulate: 1, intensify: 1, peaking: 2 },
	),
	hard(
		'top-speed',
		'Top speed',
		['sprint', 'plyometric'],
		'Few runs at full speed with long rests, and springs on the ground for the same short contact.',
		[ladder('Top speed', 'top-speed', 'fastMetres'), starts('Top speed'), ...springs],
		{ intensify: 2, peaking: 1 },
	),
	{
		id: 'one-rep',
		version: 1,
		name: 'One fast rep',
		about:
			'Fresh and fast, once: a rehearsal, then one run at full speed. A record has its chance, and the day ends there.',
		role: 'hard',
		main: 'sprint',
		second: null,
		share: 0.25,
		opening: [...WARM_UP, RHYTHM],
		pieces: [
			{
				part: 'Rehearsal',
				drillId: 'build-run',
				dose: { sets: 1, reps: 1 },
				parameters: { distanceM: 30, runInM: 15, effortPercent: 85 },
			},
			{
				part: 'One rep',
				drillId: 'fly-20',
				dose: { sets: 1, reps: 1 },
				parameters: { distanceM: 20, runInM: 30 },
				quantity: 'fastMetres',
			},
		],
		kept: [],
		closing: [CLOSE],
		inBlock: {},
	},
	hard(
		'heavy-and-free',
		'Heavy, then free',
		['sprint', 'plyometric'],
		'A heavy pull, then a free start while it is still felt. For those whom an own trial or the school lets do it.',
		[ladder('Heavy, then free', 'contrast', 'fastMetres'), ...short('Starts'), upward('Jumps upward')],
	),
	hard(
		'faster-than-alone',
		'Pulled to speed',
		['sprint', 'plyometric'],
		'A little faster than alone, by a pull, with free starts and springs around it.',
		[ladder('Pulled to speed', 'assisted', 'fastMetres'), ...short('Starts'), ...springs],
	),
	hard(
		'carried',
		'A little weight',
		['sprint', 'plyometric'],
		'Runs with a small weight on the limb or the trunk, the last one free; jumps forward after them.',
		[ladder('A little weight', 'carried-load', 'fastMetres'), ...short('Starts'), forward('Jumps forward')],
	),
	hard(
		'repeat-speed',
		'Speed again and again',
		['sprint', 'agility'],
		'Fast runs on short rest, after a few fresh starts; cuts keep the turns of the shuttle sharp.',
		[...short('Starts'), ladder('Again and again', 'repeat-speed', 'fastMetres'), sixty('Cuts at 60°')],
	),
	hard(
		'stiffness',
		'Springs',
		['plyometric', 'sprint'],
		'Many light contacts, short and stiff, before the harder jumps of a later phase.',
		[...springs, ...jumps, ...short('Starts')],
		{ accumulate: 1, peaking: 2 },
	),
	hard(
		'rebound',
		'Landing and rebound',
		['plyometric', 'sprint'],
		'Landings first, rebounds from a box for those who may. Starts before them, while the legs are fresh.',
		[...short('Starts'), ladder('Landing and rebound', 'shock', 'contacts'), ...jumps],
		{ intensify: 1, peaking: 1 },
	),
	hard(
		'bounds',
		'Bounds and hops',
		['plyometric', 'sprint'],
		'From leg to leg and on one leg, for distance and rhythm.',
		[...short('Starts'), ladder('Bounds and hops', 'bound', 'contacts'), ...jumps],
		{ accumulate: 2, intensify: 2 },
	),
	hard(
		'take-off',
		'Take-off',
		['plyometric', 'throw'],
		'Jumping from a run, off one leg; throws from the legs after it.',
		[ladder('Take-off', 'take-off', 'contacts'), ...jumps, ladder('Throws', 'throw', 'throws')],
		{ intensify: 4 },
	),
	hard(
		'sideways',
		'Sideways',
		['plyometric', 'agility'],
		'Bounds and jumps to the side, then cuts that use them.',
		[ladder('Sideways', 'lateral-bound', 'contacts'), sideways('Jumps sideways'), sixty('Cuts at 60°')],
		{ accumulate: 3, intensify: 3 },
	),
	hard(
		'turns',
		'Turns and braking',
		['agility', 'plyometric'],
		'Stopping before turning: stops, then cuts, then landings to the side.',
		[ladder('Stops', 'brake', 'cuts60'), ladder('Cuts', 'cut', 'cuts60'), sixty('Cuts'), sideways('Jumps sideways')],
		{ accumulate: 1, intensify: 1, peaking: 1 },
	),
	hard(
		'curves',
		'Curves and reacting',
		['agility', 'sprint'],
		'Running bends, and changes of direction that somebody else decides, in pairs.',
		[
			ladder('Curves', 'curve', 'fastMetres'),
			ladder('Reacting', 'react', 'cuts60'),
			sixty('Reacting'),
			...short('Starts'),
		],
		{ accumulate: 2, intensify: 2, peaking: 2 },
	),
	hard(
		'throws',
		'Throws',
		['throw', 'plyometric'],
		'Throws from the whole body, the legs first; jumps upward after them.',
		[ladder('Throws', 'throw', 'throws'), fromLegs('Throws from the legs'), upward('Jumps upward')],
		{ accumulate: 1, intensify: 1, peaking: 1 },
	),
	{
		id: 'mixed',
		version: 1,
		name: 'Speed and power',
		about: 'For everybody, from level 1 to 3: everything a little, by everybody’s own rung, as far as the minutes go.',
		role: 'hard',
		main: null,
		second: null,
		opening: [...WARM_UP, RHYTHM],
		pieces: [
			...short('Acceleration'),
			ladder('Jumps', 'shock', 'contacts'),
			...jumps,
			ladder('Stops', 'brake', 'cuts60'),
			ladder('Cuts', 'cut', 'cuts60'),
			sixty('Cuts'),
			...throws,
		],
		kept: [],
		closing: [CLOSE],
		inBlock: {},
	},
	{
		id: 'easy',
		version: 1,
		name: 'Light day',
		about: 'Rhythm, springs, jumps and throws at half a day’s contacts; nothing fast, high or maximal.',
		role: 'light',
		main: null,
		second: null,
		opening: [...WARM_UP, RHYTHM],
		pieces: [ladder('Springs', 'stiffness', 'contacts'), ...jumps, ...throws],
		kept: [],
		closing: [CLOSE],
		inBlock: {},
	},
	{
		id: 'return',
		version: 1,
		name: 'Return day',
		about:
			'For who comes back: each one’s step of the way back, landings, springs and throws from the ground, at a quarter of a day.',
		role: 'light',
		main: null,
		second: null,
		share: 0.5,
		opening: [{ part: 'Warm-up', drillId: 'easy-run', parameters: { distanceM: 400 } }, WARM_UP[1]!, RHYTHM],
		pieces: [
			ladder('The way back', 'acceleration', null),
			{ part: 'Landings', drillId: 'two-foot-stick', dose: { sets: 2, reps: 5 }, quantity: 'contacts' },
			...springs,
			{ part: 'Throws', drillId: 'easy-toss', dose: { sets: 2, reps: 5 }, quantity: 'throws' },
		],
		kept: [],
		closing: [CLOSE],
		inBlock: {},
	},
	{
		id: 'tendon',
		version: 1,
		name: 'Tendon work',
		about: 'Slow and heavy for tendon and calf, and holds: it wants hours after what is fast, not before it.',
		role: 'tissue',
		main: null,
		second: null,
		opening: [],
		pieces: [
			ladder('Tendon work', 'tissue', null),
			{ part: 'Tendon work', drillId: 'bridge-hold' },
			{ part: 'Tendon work', drillId: 'slow-split-squat' },
		],
		kept: [],
		closing: [],
		inBlock: {},
	},
	{
		id: 'tests',
		version: 1,
		name: 'Tests',
		about: 'One jump up, one forward, one run and one throw, each try fresh. A squad’s own battery stands in for them.',
		role: 'test',
		main: null,
		second: null,
		opening: [...WARM_UP],
		pieces: [
			attempts('countermovement-jump', 3),
			attempts('broad-jump', 3),
			attempts('standing-start', 2, { parameters: { distanceM: 30 }, rest: FULL_REST }),
			attempts('overhead-throw', 3),
		],
		kept: [],
		closing: [CLOSE],
		inBlock: {},
	},
]
