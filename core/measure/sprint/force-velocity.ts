import { linearRegression } from 'simple-statistics'
import { MeasureError, inBounds } from '../measure-error'
import { STANDARD_GRAVITY } from '../standard-gravity'
import { speedAtTime } from './sprint-curve'

export interface ForceVelocityInput {
	/** 2–13 m/s. */
	mssMps: number
	/** 0.3–3 s. */
	tauS: number
	/** 15–200 kg. */
	massKg: number
	/** 0.9–2.5 m. */
	heightM: number
	/** −30–50 °C, 15 when left out. */
	temperatureC?: number
	/** 600–1100 hPa, 1013.25 when left out. */
	pressureHpa?: number
	/** Tail wind positive, −15–15 m/s, 0 when left out. */
	windMps?: number
}

export interface ForceVelocity {
	/** Horizontal force at no speed, per kg of body mass. */
	f0Nkg: number
	/** Speed at no horizontal force. */
	v0Mps: number
	/** F0 · V0 / 4. */
	pmaxWkg: number
	/** Of force per kg on speed, N·s/(m·kg); negative. */
	slope: number
	/** Largest share of the ground force that points forwards, from 0.3 s on, percent. */
	rfmaxPct: number
	/** Loss of that share per m/s, percent; negative. */
	drfPct: number
	airDensityKgm3: number
}

const TORR_PER_HPA = 760 / 1013.25
/** Drag coefficient of a running body and the share of its surface that faces the wind. Arsac & Locatelli 2002. */
const DRAG_COEFFICIENT = 0.9
const FRONTAL_SHARE = 0.266

/**
 * Density of dry air in kg/m³ from temperature (°C) and pressure (hPa), as used in sprint mechanics:
 * 1.293 · (p / 760 torr) · 273 / (273 + T). Arsac & Locatelli 2002.
 */
export function airDensity(temperatureC: number, pressureHpa: number): number {
	return (1.293 * pressureHpa * TORR_PER_HPA * 273) / (760 * (273 + temperatureC))
}

/**
 * Air resistance of a runner in N per (m/s)²: ½ · density · frontal area · drag coefficient, the area a
 * share of the body surface 0.2025 · height^0.725 · mass^0.425 (Du Bois). Arsac & Locatelli 2002.
 */
export function dragFactor(massKg: number, heightM: number, densityKgm3: number): number {
	return 0.5 * densityKgm3 * FRONTAL_SHARE * 0.2025 * heightM ** 0.725 * massKg ** 0.425 * DRAG_COEFFICIENT
}

/**
 * Horizontal force, speed and power of a sprint from its fitted curve. Force = m·a + drag, the drag with
 * the sign of the air's speed against the runner; F0 and V0 by linear regression of force on speed,
 * sampled every 1 ms from 0 to 5 TAU. The share of force that points forwards, F / √(F² + (m g)²), is
 * read from 0.3 s on: before it the model does not describe a push-off, and from 0.5 s RFmax would
 * read about a tenth lower. Source: Samozino et al. 2016.
 *
 * @throws MeasureError outside the ranges of the input
 * @example forceVelocity({ mssMps: 9, tauS: 1.2, massKg: 70, heightM: 1.75 }).pmaxWkg // about 17.4
 */
export function forceVelocity(input: ForceVelocityInput): ForceVelocity {
	const mss = inBounds('mssMps', input.mssMps, { from: 2, to: 13, unit: 'm/s' })
	const tau = inBounds('tauS', input.tauS, { from: 0.3, to: 3, unit: 's' })
	const mass = inBounds('massKg', input.massKg, { from: 15, to: 200, unit: 'kg' })
	const height = inBounds('heightM', input.heightM, { from: 0.9, to: 2.5, unit: 'm' })
	const density = airDensity(
		inBounds('temperatureC', input.temperatureC ?? 15, { from: -30, to: 50, unit: '°C' }),
		inBounds('pressureHpa', input.pressureHpa ?? 1013.25, { from: 600, to: 1100, unit: 'hPa' }),
	)
	const wind = inBounds('windMps', input.windMps ?? 0, { from: -15, to: 15, unit: 'm/s' })
	const k = dragFactor(mass, height, density)
	const points: [number, number][] = []
	const shares: [number, number][] = []
	let largest = 0
	const last = Math.floor(5000 * tau + 1e-6)
	for (let ms = 0; ms <= last; ms++) {
		const t = ms / 1000
		const v = speedAtTime(mss, tau, t)
		const air = v - wind
		const force = mass * (mss / tau) * Math.exp(-t / tau) + k * air * Math.abs(air)
		points.push([v, force / mass])
		if (ms >= 300) {
			const share = force / Math.hypot(force, mass * STANDARD_GRAVITY)
			largest = Math.max(largest, share)
			shares.push([v, share])
		}
	}
	const { m: slope, b: f0 } = linearRegression(points)
	if (!(slope < 0 && f0 > 0)) throw new MeasureError('windMps', wind, 'a wind in which the runner still has to push')
	const v0 = -f0 / slope
	return {
		f0Nkg: f0,
		v0Mps: v0,
		pmaxWkg: (f0 * v0) / 4,
		slope,
		rfmaxPct: 100 * largest,
		drfPct: 100 * linearRegression(shares).m,
		airDensityKgm3: density,
	}
}
