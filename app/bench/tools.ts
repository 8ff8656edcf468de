import type { Family } from '#core/vocabulary/words'

export interface BenchTool {
	id: string
	name: string
	purpose: string
	family: Family
}

/** The tools of the bench, in the order of the day: sprint, jump, turn, throw. */
export const BENCH_TOOLS: readonly BenchTool[] = [
	{
		id: 'sprint-profile',
		name: 'Sprint profile',
		purpose: 'Top speed and acceleration from split times, and where the time goes',
		family: 'sprint',
	},
	{ id: 'steps', name: 'Steps', purpose: 'Step length and frequency from a count over a distance', family: 'sprint' },
	{ id: 'wickets', name: 'Wickets', purpose: 'A spacing list to print, and lanes for a squad', family: 'sprint' },
	{ id: 'resisted', name: 'Resisted load', purpose: 'The load that costs a wanted share of speed', family: 'sprint' },
	{ id: 'assisted', name: 'Assisted target', purpose: 'Speed and time to aim at with a pull', family: 'sprint' },
	{
		id: 'carried',
		name: 'Carried load',
		purpose: 'Loads on a limb compared: what each adds and what it cost',
		family: 'sprint',
	},
	{
		id: 'film',
		name: 'Film stepper',
		purpose: 'Contact, flight and step times frame by frame, and angles; the film stays on this device',
		family: 'plyometric',
	},
	{
		id: 'contact',
		name: 'Contact and rebound',
		purpose: 'Boxes compared by contact, and the best one',
		family: 'plyometric',
	},
	{ id: 'plants', name: 'Take-off plants', purpose: 'Two feet, left, right: which one lags', family: 'plyometric' },
	{ id: 'turn', name: 'Cut and turn', purpose: 'What a turn costs, left against right', family: 'agility' },
	{ id: 'curve', name: 'Curve', purpose: 'Sideways pull and lean on a radius', family: 'agility' },
	{ id: 'throw', name: 'Throw', purpose: 'Release speed and energy from a distance', family: 'throw' },
]
