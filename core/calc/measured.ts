import { sayPosture } from '../measure/film/posture'
import { METHOD_NAMES, type Method } from '../vocabulary/words'

/** How a measurement at the bench was taken: the methods of the field, and film at any rate (the rate is in the input). */
export type BenchMethod = Exclude<Method, 'film-240' | 'film-120'> | 'film'
export const benchMethodName = (method: string): string =>
	method === 'film' ? 'film' : (METHOD_NAMES[method as Method] ?? method)

interface Measured {
	title: string
	methods: readonly BenchMethod[]
	/** The result in one line, from the calculation's output. */
	headline: (output: Record<string, unknown>) => string
	/** The one number that is followed from time to time, with its unit; none where the result is several. */
	followed?: { name: string; unit: string; digits: number; of: (output: Record<string, unknown>) => unknown }
}

const TIMED = ['gate', 'phone', 'stopwatch', 'film'] as const
const fixed = (value: unknown, digits: number, unit: string) =>
	typeof value === 'number' ? `${value.toFixed(digits)} ${unit}` : ''
const cm = (metres: unknown) => fixed(Number(metres) * 100, 0, 'cm')
const ms = (seconds: unknown) => fixed(Number(seconds) * 1000, 0, 'ms')

/** The calculations that say something about one athlete, and so can be kept with them. */
export const MEASURED: Readonly<Record<string, Measured>> = {
	'sprint-profile': {
		title: 'Sprint profile',
		methods: TIMED,
		headline: ({ mss_mps, tau_s, mac_mps2 }) =>
			`${fixed(mss_mps, 2, 'm/s')} top speed, TAU ${fixed(tau_s, 2, 's')}, MAC ${fixed(mac_mps2, 1, 'm/s²')}`,
		followed: { name: 'top speed', unit: 'm/s', digits: 2, of: ({ mss_mps }) => mss_mps },
	},
	'force-velocity': {
		title: 'Force and velocity',
		methods: TIMED,
		headline: ({ f0_nkg, v0_mps, pmax_wkg }) =>
			`F0 ${fixed(f0_nkg, 1, 'N/kg')}, V0 ${fixed(v0_mps, 1, 'm/s')}, ${fixed(pmax_wkg, 1, 'W/kg')}`,
		followed: { name: 'most power', unit: 'W/kg', digits: 1, of: ({ pmax_wkg }) => pmax_wkg },
	},
	steps: {
		title: 'Steps',
		methods: TIMED,
		headline: ({ step_length_m, step_frequency_hz }) =>
			`${fixed(step_length_m, 2, 'm')} × ${fixed(step_frequency_hz, 2, 'a second')}`,
		followed: { name: 'step length', unit: 'm', digits: 2, of: ({ step_length_m }) => step_length_m },
	},
	'resisted-load': {
		title: 'Load and speed',
		methods: TIMED,
		headline: ({ load_kg, free_velocity_mps }) =>
			`${fixed(load_kg, 1, 'kg')} for the target, free ${fixed(free_velocity_mps, 2, 'm/s')}`,
	},
	'jump-height': {
		title: 'Jump height',
		methods: ['mat', 'film', 'reach'],
		headline: ({ height_m }) => cm(height_m),
		followed: { name: 'height', unit: 'cm', digits: 1, of: ({ height_m }) => Number(height_m) * 100 },
	},
	rebound: {
		title: 'Contact and rebound',
		methods: ['mat', 'film'],
		headline: ({ rsi_mps, height_m }) => `RSI ${fixed(rsi_mps, 2, 'm/s')}, ${cm(height_m)}`,
		followed: { name: 'RSI', unit: 'm/s', digits: 2, of: ({ rsi_mps }) => rsi_mps },
	},
	'drop-jump-series': {
		title: 'Best box',
		methods: ['mat', 'film'],
		headline: ({ best_box_m, by_box }) => {
			const best = (by_box as { box_m: number; rsi_mps: number; contact_time_s: number }[]).find(
				(box) => box.box_m === best_box_m,
			)
			return best
				? `${cm(best.box_m)}, RSI ${fixed(best.rsi_mps, 2, 'm/s')}, contact ${ms(best.contact_time_s)}`
				: 'none within the contact ceiling'
		},
	},
	plants: {
		title: 'Take-off plants',
		methods: ['mat', 'film', 'reach'],
		headline: ({ best, lagging }) =>
			`best ${String(best).replace('-', ' ')}${lagging ? `, ${String(lagging).replace('-', ' ')} lags` : ''}`,
	},
	posture: {
		title: 'Posture',
		methods: ['film'],
		headline: ({ trunk_deg, shin_deg, knee_deg }) =>
			sayPosture({ trunkDeg: Number(trunk_deg), shinDeg: Number(shin_deg), kneeDeg: Number(knee_deg) }),
	},
	throw: {
		title: 'Throw',
		methods: ['tape'],
		headline: ({ release_speed_mps }) => `released at ${fixed(release_speed_mps, 1, 'm/s')}`,
		followed: { name: 'release speed', unit: 'm/s', digits: 1, of: ({ release_speed_mps }) => release_speed_mps },
	},
	cod: {
		title: 'Cut and turn',
		methods: TIMED,
		headline: ({ deficit_s, asymmetry_pct, quicker }) =>
			`the turn costs ${fixed(deficit_s, 2, 's')}${quicker ? `, ${String(quicker)} quicker by ${fixed(asymmetry_pct, 0, '%')}` : ''}`,
		followed: { name: 'what the turn costs', unit: 's', digits: 2, of: ({ deficit_s }) => deficit_s },
	},
	braking: {
		title: 'Braking',
		methods: TIMED,
		headline: ({ deceleration_mps2 }) => fixed(deceleration_mps2, 1, 'm/s²'),
		followed: { name: 'braking', unit: 'm/s²', digits: 1, of: ({ deceleration_mps2 }) => deceleration_mps2 },
	},
	curve: {
		title: 'Curve',
		methods: TIMED,
		headline: ({ centripetal_mps2, lean_deg }) =>
			`${fixed(centripetal_mps2, 1, 'm/s²')}, lean ${fixed(lean_deg, 0, '°')}`,
	},
	'assisted-target': {
		title: 'Assisted target',
		methods: TIMED,
		headline: ({ speed_mps, segment_time_s }) => `${fixed(speed_mps, 2, 'm/s')}, ${fixed(segment_time_s, 2, 's')}`,
	},
	wickets: {
		title: 'Wickets',
		methods: ['tape'],
		headline: ({ gaps_m }) =>
			`${fixed((gaps_m as number[])[0] ?? 0, 2, 'm')} to ${fixed((gaps_m as number[]).at(-1) ?? 0, 2, 'm')}`,
	},
	'carried-load': {
		title: 'Carried load',
		methods: TIMED,
		headline: ({ by_load }) =>
			(by_load as { added_inertia_kgm2: number; slower_pct: number | null }[])
				.map(
					(load) =>
						`${fixed(load.added_inertia_kgm2, 3, 'kg m²')}${load.slower_pct === null ? '' : ` ${fixed(load.slower_pct, 1, '% slower')}`}`,
				)
				.join('; '),
	},
}
