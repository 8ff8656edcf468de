import { inBounds } from '../measure-error'

export interface TurnTimes {
	/** 505: 5 m to a turn and 5 m back, after a 10 m run-in, above 0 to 20 s. */
	time505S: number
	/** 10 m straight, same timing set-up, above 0 to 20 s. */
	time10S: number
}

export interface ChangeOfDirection {
	/** What the turn costs; the mean of both sides when both were run. */
	deficitS: number
	leftDeficitS: number | null
	rightDeficitS: number | null
	/** Difference of the two deficits as percent of the smaller one; null for one side or when one is not above 0. */
	asymmetryPct: number | null
	quicker: 'left' | 'right' | null
	warnings: string[]
}

/**
 * Change-of-direction deficit = 505 time − 10 m time, both from the same timing set-up: what the turn
 * costs over running straight. Source: Nimphius et al. 2016.
 *
 * @throws MeasureError when a time is out of range
 * @example turnDeficit({ time505S: 2.4, time10S: 1.8 }).deficitS // 0.6
 */
export function turnDeficit(times: TurnTimes): ChangeOfDirection {
	const deficitS = deficitOf(times, '')
	return {
		deficitS,
		leftDeficitS: null,
		rightDeficitS: null,
		asymmetryPct: null,
		quicker: null,
		warnings: implausible(deficitS),
	}
}

/** The same for a turn to the left and to the right, with the gap between them. */
export function turnDeficits(left: TurnTimes, right: TurnTimes): ChangeOfDirection {
	const leftDeficitS = deficitOf(left, 'left.')
	const rightDeficitS = deficitOf(right, 'right.')
	const better = Math.min(leftDeficitS, rightDeficitS)
	const warnings = implausible(better)
	return {
		deficitS: (leftDeficitS + rightDeficitS) / 2,
		leftDeficitS,
		rightDeficitS,
		asymmetryPct: better > 0 ? (Math.abs(leftDeficitS - rightDeficitS) / better) * 100 : null,
		quicker: leftDeficitS === rightDeficitS ? null : leftDeficitS < rightDeficitS ? 'left' : 'right',
		warnings,
	}
}

function deficitOf({ time505S, time10S }: TurnTimes, side: string): number {
	return (
		inBounds(`${side}time505S`, time505S, { above: 0, to: 20, unit: 's' }) -
		inBounds(`${side}time10S`, time10S, { above: 0, to: 20, unit: 's' })
	)
}

const implausible = (deficitS: number) =>
	deficitS > 0 ? [] : ['The turn would cost nothing: check that both times come from the same timing set-up.']

/**
 * What reading and deciding costs: reactive time − planned time over the same path, in s.
 * @param reactiveS, plannedS above 0 to 60 s
 */
export function reactiveCost(reactiveS: number, plannedS: number): number {
	return (
		inBounds('reactiveS', reactiveS, { above: 0, to: 60, unit: 's' }) -
		inBounds('plannedS', plannedS, { above: 0, to: 60, unit: 's' })
	)
}

/**
 * Mean deceleration from a speed to a stop over a distance: v² / (2 d), in m/s².
 * @param speedMps above 0 to 13 m/s
 * @param distanceM above 0 to 100 m
 * @example meanDeceleration(6, 4) // 4.5
 */
export function meanDeceleration(speedMps: number, distanceM: number): number {
	return (
		inBounds('speedMps', speedMps, { above: 0, to: 13, unit: 'm/s' }) ** 2 /
		(2 * inBounds('distanceM', distanceM, { above: 0, to: 100, unit: 'm' }))
	)
}
