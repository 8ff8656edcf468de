import type { AskedWork } from '../vocabulary/line-parts'
import { wornReps } from '../vocabulary/worn-reps'
import type { CarriedLoad, Rest, SideDoses } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import { SIDES } from '../vocabulary/words'
import { inSentence, writeDose, writeDrill } from './write-numbers'
import { writeClock, writeRest } from './rests'

/** A line as it is put into words. */
export interface WrittenWork extends AskedWork {
	sides?: SideDoses | null | undefined
	carried?: CarriedLoad | null | undefined
}
type DrillOf = (drillId: string) => Pick<Drill, 'name'> | null | undefined

/**
 * What is done: the drill with what varies, or the pieces of a complex in their order.
 *
 * @example "Resisted start 10 m, 50 % speed lost to the pull, then free start 10 m"
 */
export function writeWhat({ drillId, parameters, pieces }: WrittenWork, drillOf: DrillOf): string {
	const one = (id: string, own: WrittenWork['parameters']) => {
		const drill = drillOf(id)
		return drill ? writeDrill(drill, own) : 'a drill that is gone'
	}
	if (!pieces) return one(drillId, parameters)
	return pieces
		.map((piece, index) => {
			const words = `${one(piece.drillId, piece.parameters)}${piece.reps > 1 ? ` ×${piece.reps}` : ''}`
			return index === 0 ? words : `then ${inSentence(words)}`
		})
		.join(', ')
}

/** How much: sets × reps, the rounds of a complex, unlike doses of the sides, and on which reps a weight is worn. */
export function writeAmount({ dose, pieces, sides, carried }: Omit<WrittenWork, 'drillId' | 'parameters'>): string {
	if (pieces) {
		const rounds = dose.sets * dose.reps
		return `${rounds} ${rounds === 1 ? 'round' : 'rounds'}`
	}
	const bySide = SIDES.flatMap((side) => (sides?.[side] ? [`${side} ${writeDose(sides[side])}`] : []))
	const amount = bySide.length > 0 ? bySide.join(', ') : writeDose(dose)
	if (!carried) return amount
	const worn = wornReps(dose)
	return worn === null
		? `${amount}, all free: too few to wear it and to finish without`
		: `${amount}, the weight on reps ${worn.from} to ${worn.to}`
}

/** "Pogo, 3×15": what and how much in one breath. */
export const writeWork = (line: WrittenWork, drillOf: DrillOf): string =>
	`${writeWhat(line, drillOf)}, ${writeAmount(line)}`

/** The rests of a line; of a complex between its pieces and between its rounds. */
export function writeRests({ dose, pieces, rest }: Pick<WrittenWork, 'dose' | 'pieces'> & { rest: Rest }): string {
	if (!pieces) return writeRest(rest, dose)
	const between = rest.repsS === 0 ? 'straight on' : `${writeClock(rest.repsS)} between the pieces`
	return dose.sets * dose.reps === 1 ? between : `${between}, ${writeClock(rest.setsS)} between rounds`
}

const JOINT_ABOVE: Record<Exclude<CarriedLoad['segment'], 'trunk'>, string> = {
	thigh: 'the hip',
	shank: 'the knee',
	foot: 'the ankle',
	'upper-arm': 'the shoulder',
	forearm: 'the elbow',
	hand: 'the wrist',
}
const SEGMENT: Record<CarriedLoad['segment'], string> = {
	trunk: 'trunk',
	thigh: 'thigh',
	shank: 'shank',
	foot: 'foot',
	'upper-arm': 'upper arm',
	forearm: 'forearm',
	hand: 'hand',
}
/** "on each shank, 15 cm from the knee"; "on the trunk". */
export function writeWorn({
	segment,
	side,
	fromJointCm,
}: Pick<CarriedLoad, 'segment' | 'side' | 'fromJointCm'>): string {
	if (segment === 'trunk') return 'on the trunk'
	const where = side ? `on the ${side} ${SEGMENT[segment]}` : `on each ${SEGMENT[segment]}`
	return fromJointCm === undefined ? where : `${where}, ${fromJointCm} cm from ${JOINT_ABOVE[segment]}`
}
