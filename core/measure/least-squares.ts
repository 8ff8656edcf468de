/**
 * One residual of a model and its derivatives.
 *
 * @param parameters the model's parameters
 * @param index which observation
 * @param gradient filled with ∂model/∂parameter
 * @returns observed − model
 */
export type Residual = (parameters: Float64Array, index: number, gradient: Float64Array) => number

export interface LeastSquaresFit {
	parameters: number[]
	/** Sum of squared residuals. */
	sumOfSquares: number
	/** Inverse of JᵀJ at the solution, row by row; null when the parameters cannot be told apart. */
	inverse: number[] | null
	/** Stopped because a step no longer changed the parameters or the sum. */
	converged: boolean
	iterations: number
}

const MAX_ITERATIONS = 200

/**
 * Damped Gauss–Newton (Levenberg 1944, Marquardt 1963, scaled by the diagonal of JᵀJ) with analytic
 * derivatives, for one to four parameters. A step that does not lower the sum of squares is never
 * taken, so the result is never worse than the start and never NaN. Exact data leave no residual, so
 * the size of the step ends the search too.
 *
 * @param start finite starting values, one per parameter
 * @param count number of observations, at least the number of parameters
 * @param project moves parameters back into their domain in place; the identity when left out
 */
export function fitLeastSquares(
	start: readonly number[],
	count: number,
	residual: Residual,
	project?: (parameters: Float64Array) => void,
): LeastSquaresFit {
	const p = start.length
	let here = Float64Array.from(start)
	let there = new Float64Array(p)
	const gradient = new Float64Array(p)
	let normal = new Float64Array(p * p)
	let slope = new Float64Array(p)
	let nextNormal = new Float64Array(p * p)
	let nextSlope = new Float64Array(p)
	const damped = new Float64Array(p * p)
	const step = new Float64Array(p)

	const evaluate = (at: Float64Array, intoNormal: Float64Array, intoSlope: Float64Array): number => {
		intoNormal.fill(0)
		intoSlope.fill(0)
		let sum = 0
		for (let i = 0; i < count; i++) {
			const r = residual(at, i, gradient)
			sum += r * r
			for (let a = 0; a < p; a++) {
				intoSlope[a]! += gradient[a]! * r
				for (let b = 0; b <= a; b++) intoNormal[a * p + b]! += gradient[a]! * gradient[b]!
			}
		}
		for (let a = 0; a < p; a++) for (let b = 0; b < a; b++) intoNormal[b * p + a] = intoNormal[a * p + b]!
		return sum
	}

	project?.(here)
	let sum = evaluate(here, normal, slope)
	let damping = 1e-3
	let converged = false
	let iterations = 0
	let lastSize = Infinity
	while (iterations < MAX_ITERATIONS && !converged && Number.isFinite(sum)) {
		iterations++
		damped.set(normal)
		for (let a = 0; a < p; a++) damped[a * p + a]! += damping * Math.max(normal[a * p + a]!, 1e-30)
		let size = 0
		let length = 0
		let lower = false
		if (solve(damped, slope, step, p)) {
			for (let a = 0; a < p; a++) there[a] = here[a]! + step[a]!
			project?.(there)
			for (let a = 0; a < p; a++) {
				size = Math.max(size, Math.abs(there[a]! - here[a]!))
				length = Math.max(length, Math.abs(here[a]!))
			}
			const nextSum = evaluate(there, nextNormal, nextSlope)
			lower = nextSum <= sum
			if (lower) {
				// Steps shrink by a factor each time: the next would be about size · factor, which is what is still wrong.
				const factor = lastSize === Infinity ? 1 : Math.min(size / lastSize, 1)
				converged = size * factor <= 1e-11 * (length + 1e-10) || (sum - nextSum <= 1e-15 * sum && damping <= 1e-3)
				lastSize = size
				;[here, there] = [there, here]
				;[normal, nextNormal] = [nextNormal, normal]
				;[slope, nextSlope] = [nextSlope, slope]
				sum = nextSum
				damping = Math.max(damping * 0.1, 1e-14)
			} else if (size <= 1e-10 * (length + 1e-10)) converged = true
		}
		if (!lower) damping *= 8
		if (damping > 1e16) break
	}
	return { parameters: [...here], sumOfSquares: sum, inverse: invert(normal, p), converged, iterations }
}

/** Solves the symmetric positive definite system in place by Cholesky's method; false when it is not one. */
function solve(matrix: Float64Array, right: Float64Array, into: Float64Array, p: number): boolean {
	for (let a = 0; a < p; a++) {
		for (let b = 0; b <= a; b++) {
			let sum = matrix[a * p + b]!
			for (let k = 0; k < b; k++) sum -= matrix[a * p + k]! * matrix[b * p + k]!
			if (a === b) {
				if (!(sum > 0)) return false
				matrix[a * p + a] = Math.sqrt(sum)
			} else matrix[a * p + b] = sum / matrix[b * p + b]!
		}
	}
	for (let a = 0; a < p; a++) {
		let sum = right[a]!
		for (let k = 0; k < a; k++) sum -= matrix[a * p + k]! * into[k]!
		into[a] = sum / matrix[a * p + a]!
	}
	for (let a = p - 1; a >= 0; a--) {
		let sum = into[a]!
		for (let k = a + 1; k < p; k++) sum -= matrix[k * p + a]! * into[k]!
		into[a] = sum / matrix[a * p + a]!
	}
	return into.every(Number.isFinite)
}

function invert(matrix: Float64Array, p: number): number[] | null {
	const inverse = new Array<number>(p * p)
	const unit = new Float64Array(p)
	const column = new Float64Array(p)
	for (let b = 0; b < p; b++) {
		unit.fill(0)
		unit[b] = 1
		if (!solve(Float64Array.from(matrix), unit, column, p)) return null
		for (let a = 0; a < p; a++) inverse[a * p + b] = column[a]!
	}
	return inverse
}
