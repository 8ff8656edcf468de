import { turnsOfMark } from '../dose/sides'
import type { Mark } from '../vocabulary/events'
import type { FieldLine, FieldPiece } from './pack'

/**
 * A line as one of its pieces has it, counted from 1: its drill, its numbers, what it is held to. Of a plain line, and
 * of a piece it does not have, it is the line itself.
 */
export function lineAt(line: FieldLine, piece: number | undefined): FieldLine {
	const own = piece === undefined ? line.pieces?.find(({ judged }) => judged) : line.pieces?.[piece - 1]
	if (!own) return line
	const { reps: _reps, rest: _rest, judged: _judged, ...ofDrill } = own
	// What one piece has and the other has not must not stay behind.
	const { sided: _sided, own: _own, lastTime: _lastTime, errors: _errors, ...plain } = line
	return { ...plain, ...ofDrill }
}
/** As the piece has it that verdicts look at. */
export const judgedLine = (line: FieldLine): FieldLine => lineAt(line, undefined)

/** Where an athlete stands in the rounds of a complex. */
export interface Round {
	/** Whole rounds done. */
	done: number
	/** The piece whose turn it is, counted from 1, and its reps left in this round. */
	piece: number
	left: number
	/** Something of this round is done. */
	within: boolean
	/** A rep of the piece is done on one side only. */
	half: boolean
}

/** The piece a mark is of, counted from 1: the judged one where it says none. */
export const pieceOf = (pieces: readonly FieldPiece[], { piece }: Pick<Mark, 'piece'>): number =>
	piece ?? pieces.findIndex((one) => one.judged) + 1

/** @param marks of the line */
export function roundOf(pieces: readonly FieldPiece[], marks: readonly Mark[]): Round {
	const turns = pieces.map(({ sided }, index) =>
		marks
			.filter((mark) => pieceOf(pieces, mark) === index + 1)
			.reduce((sum, mark) => sum + turnsOfMark(mark, sided ?? null), 0),
	)
	const done = Math.min(...pieces.map(({ reps }, index) => Math.floor(turns[index]! / reps)))
	const ofRound = pieces.map(({ reps }, index) => Math.max(0, turns[index]! - done * reps))
	const at = Math.max(
		0,
		pieces.findIndex(({ reps }, index) => ofRound[index]! < reps),
	)
	return {
		done,
		piece: at + 1,
		left: Math.ceil(pieces[at]!.reps - ofRound[at]!),
		within: ofRound.some((one) => one > 0),
		half: ofRound[at]! % 1 !== 0,
	}
}
