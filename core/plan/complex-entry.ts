import type { Piece } from '../vocabulary/dose'
import type { SessionEntry } from '../vocabulary/entry'
import type { Library } from '../vocabulary/library'

type Drills = Pick<Library, 'drills'>

/** What lies between two pieces when nothing else is said, s [our setting]; heavy before free wants minutes. */
const BETWEEN_S = 60
const STRAIGHT_ON = { repsS: 0, setsS: 0 }
/** As many pieces as a complex may have. */
export const MOST_PIECES = 6

/**
 * A drill of an entry with another one before it: a complex of as many rounds as the entry had sets. The drill of the
 * entry is the piece that is judged. The entry itself where the library does not hold the drill, or there is no room.
 */
export function withPieceBefore(entry: SessionEntry, drillId: string, { drills }: Drills): SessionEntry {
	const drill = drills[drillId]
	if (!drill || entry.ladderId !== null || (entry.pieces?.length ?? 0) >= MOST_PIECES) return entry
	const { dose, parameters, rest } = drill.defaults
	const piece: Piece = {
		drillId: drill.id,
		reps: Math.min(dose.reps, 5),
		parameters,
		rest: { ...STRAIGHT_ON, repsS: dose.reps > 1 ? rest.repsS : 0 },
		judged: false,
	}
	if (entry.pieces) {
		const at = entry.pieces.findIndex((one) => one.judged)
		return { ...entry, pieces: [...entry.pieces.slice(0, at), piece, ...entry.pieces.slice(at)] }
	}
	const own: Piece = {
		drillId: entry.drillId,
		reps: entry.dose.reps,
		parameters: entry.parameters,
		rest: { ...STRAIGHT_ON, repsS: entry.dose.reps > 1 ? entry.rest.repsS : 0 },
		judged: true,
	}
	return {
		...entry,
		dose: { sets: entry.dose.sets, reps: 1 },
		rest: { repsS: BETWEEN_S, setsS: entry.rest.setsS },
		pieces: [piece, own],
	}
}

/** The entry without one of its pieces; with one left it is that drill alone again. The judged piece stays. */
export function withoutPiece(entry: SessionEntry, index: number): SessionEntry {
	const left = (entry.pieces ?? []).filter((piece, at) => at !== index || piece.judged)
	if (left.length > 1) return { ...entry, pieces: left }
	const { pieces: _pieces, ...plain } = entry
	const [own] = left
	return own
		? {
				...plain,
				dose: { sets: entry.dose.sets * entry.dose.reps, reps: own.reps },
				rest: { repsS: own.rest.repsS, setsS: entry.rest.setsS },
			}
		: entry
}

/** Pieces with what they do not say filled from their drills; the judged one is the entry's own drill as the entry has it. */
export const wholePieces = (
	{ drillId, parameters, pieces }: Pick<SessionEntry, 'drillId' | 'parameters' | 'pieces'>,
	{ drills }: Drills,
): Piece[] | undefined =>
	pieces?.map((piece) =>
		piece.judged
			? { ...piece, drillId, parameters }
			: { ...piece, parameters: { ...drills[piece.drillId]?.defaults.parameters, ...piece.parameters } },
	)

/** What is wrong with the pieces of an entry, in a sentence; null where nothing is. */
export function pieceProblem({ ladderId, pieces }: SessionEntry, { drills }: Drills): string | null {
	if (!pieces) return null
	if (ladderId !== null) return 'A ladder’s rungs say their own pieces.'
	if (pieces.filter((piece) => piece.judged).length !== 1) return 'One piece of a complex is judged, and no more.'
	return pieces.every((piece) => drills[piece.drillId]) ? null : 'A piece names a drill that is not in the library.'
}
