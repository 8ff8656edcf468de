import type { Dose, Parameters, Piece } from './dose'
import type { Drill } from './drill'

/** What a line asks, whatever carries it. */
export interface AskedWork {
	drillId: string
	parameters: Parameters
	dose: Dose
	pieces?: readonly AskedPiece[] | null | undefined
}
export type AskedPiece = Omit<Piece, 'drillId'> & { drillId: string }
/** One drill of a line: the whole of a plain line, or a piece of a complex over all its rounds. */
export interface LinePart {
	drillId: string
	parameters: Parameters
	dose: Dose
	/** Which piece, counted from 1; null in a plain line. */
	piece: number | null
	/** Verdicts look at it. */
	judged: boolean
}

/**
 * The drills of a line, in the order they are done.
 *
 * @example linePartsOf({ …, dose: { sets: 3, reps: 1 }, pieces: [pull ×1, start ×2] }) // pull 3×1, start 3×2
 */
export function linePartsOf({ drillId, parameters, dose, pieces }: AskedWork): LinePart[] {
	if (!pieces) return [{ drillId, parameters, dose, piece: null, judged: true }]
	const rounds = dose.sets * dose.reps
	return pieces.map((piece, index) => ({
		drillId: piece.drillId,
		parameters: piece.parameters,
		dose: { sets: rounds, reps: piece.reps },
		piece: index + 1,
		judged: piece.judged,
	}))
}

/** The part of a line that something is about, counted from 1; without one, or with one the line does not have, the judged. */
export function partAt(line: AskedWork, piece: number | null | undefined): LinePart {
	const parts = linePartsOf(line)
	return parts.find((part) => part.piece === piece) ?? parts.find((part) => part.judged) ?? parts[0]!
}

/** Whether something is about the judged piece of its line; of a plain line everything is. */
export const isOfJudged = (line: Pick<AskedWork, 'pieces'>, piece: number | null | undefined): boolean =>
	!line.pieces || piece == null || line.pieces[piece - 1]?.judged === true

/**
 * The pieces of a rung; the judged one as the rung has its drill, with the parameters of the day where it goes by turns.
 * The same pieces each time, so that who reads a line knows them again.
 */
const ofRungs = new WeakMap<object, WeakMap<Parameters, AskedPiece[]>>()
export function piecesOfRung<T extends AskedPiece>(
	rung: { drillId: T['drillId']; parameters: Parameters; pieces?: T[] | undefined },
	parameters: Parameters = rung.parameters,
): T[] | undefined {
	const { drillId, pieces } = rung
	if (!pieces) return undefined
	let days = ofRungs.get(rung)
	if (!days) ofRungs.set(rung, (days = new WeakMap()))
	let known = days.get(parameters) as T[] | undefined
	if (!known) {
		known = pieces.map((piece) => (piece.judged ? { ...piece, drillId, parameters } : piece))
		days.set(parameters, known)
	}
	return known
}

/** Reps of one round of a complex; 1 in a plain line. */
export const repsOfRound = (pieces: readonly AskedPiece[] | null | undefined): number =>
	pieces ? pieces.reduce((sum, piece) => sum + piece.reps, 0) : 1

/**
 * How a line goes in turns: sets and reps as they are, or the rounds of a complex with a turn for each piece. `repS` is
 * what a turn of a complex lasts on average, s.
 */
export function paceOf(
	line: AskedWork,
	drillOf: (drillId: string) => Pick<Drill, 'defaults'> | null | undefined,
): { dose: Dose; repS?: number } {
	if (!line.pieces) return { dose: line.dose }
	const seconds = line.pieces.map(
		({ drillId, reps, rest }) => reps * (drillOf(drillId)?.defaults.repS ?? 0) + (reps - 1) * rest.repsS,
	)
	return {
		dose: { sets: line.dose.sets * line.dose.reps, reps: seconds.length },
		repS: seconds.reduce((sum, one) => sum + one, 0) / seconds.length,
	}
}
