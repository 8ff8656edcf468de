import { addTo } from '../lists/group-by'
import { intensityOf } from '../dose/count-rep'
import { MOST_OVER_RUNG_KG } from '../own/ball'
import { isHard } from '../dose/work-kinds'
import { PARAMETERS } from '../vocabulary/parameters'
import type { Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Ladder, Rung } from '../vocabulary/ladder'
import type { Library } from '../vocabulary/library'
import type { IntensityClass } from '../vocabulary/words'

/** Where a form of a drill stands on one ladder. */
export interface Place {
	ladder: Ladder
	/** The rung whose gates hold: with parameters between two, the harder one. */
	rung: Rung
	index: number
	/** Harder than every rung of the drill in some parameter. */
	beyond: boolean
}

/** A drill as it is asked for. */
export interface Form {
	drill: Drill
	parameters: Parameters
	intensity: IntensityClass
	/** High, shock or maximal. */
	hard: boolean
	/** A rebound from a box, or both feet stepping off one. */
	shock: boolean
	/** Steps off a box to land. */
	boxed: boolean
	assisted: boolean
	/** On every ladder the drill stands on; return ladders give no gates. */
	places: readonly Place[]
}

type Ladders = Library['ladders']

/** Rungs on which a drill stands, itself or as a variation, by drill; looked up once for a library's ladders. */
const known = new WeakMap<Ladders, Map<string, { ladder: Ladder; index: number; parameters: Parameters }[]>>()
function rungsOf(drillId: string, ladders: Ladders) {
	let rungs = known.get(ladders)
	if (!rungs) {
		rungs = new Map()
		for (const ladder of Object.values(ladders))
			if (!ladder.path)
				for (const [index, rung] of ladder.rungs.entries())
					for (const one of [rung, ...(rung.variations ?? [])])
						addTo(rungs, one.drillId, { ladder, index, parameters: one.parameters })
		known.set(ladders, rungs)
	}
	return rungs.get(drillId) ?? []
}

/** Whether a parameter is asked for harder than a rung has it. A tighter curve is harder; its length follows from its radius. */
function harder(asked: Parameters, rung: Parameters): boolean {
	return PARAMETERS.some((name) => {
		const [value, limit] = [asked[name], rung[name]]
		if (value === undefined || limit === undefined || name === 'minutes') return false
		if (name === 'radiusM') return value < limit
		if (name === 'distanceM' && rung.radiusM !== undefined) return false
		// A heavier body has a heavier ball on the same rung.
		if (name === 'ballKg') return value > limit + MOST_OVER_RUNG_KG
		return value > limit
	})
}
/** Whether one form of a drill is asked for harder than another. */
export const harderThan = harder

/** Parameters as one text, in one order. */
const written = new WeakMap<Parameters, string>()
export function keyOf(parameters: Parameters): string {
	let key = written.get(parameters)
	if (key === undefined) {
		key = PARAMETERS.map((name) => parameters[name] ?? '').join(',')
		written.set(parameters, key)
	}
	return key
}

/** Forms by ladders, drill and parameters: the same few are asked about again and again. */
const forms = new WeakMap<Ladders, WeakMap<Drill, Map<string, Form>>>()

/** A drill with what is asked of it; what is not said is the drill's own. */
export function formOf(drill: Drill, asked: Parameters, { ladders }: Pick<Library, 'ladders'>): Form {
	let byDrill = forms.get(ladders)
	if (!byDrill) forms.set(ladders, (byDrill = new WeakMap()))
	let known = byDrill.get(drill)
	if (!known) byDrill.set(drill, (known = new Map()))
	const key = keyOf(asked)
	const form = known.get(key) ?? makeForm(drill, asked, ladders)
	known.set(key, form)
	return form
}

function makeForm(drill: Drill, asked: Parameters, ladders: Ladders): Form {
	const parameters: Parameters = { ...drill.defaults.parameters, ...asked }
	const shock = drill.intensity === 'shock'
	const places: Place[] = []
	const rungs = rungsOf(drill.id, ladders)
	for (const ladder of new Set(rungs.map((one) => one.ladder))) {
		// They were looked up from the lowest on.
		const own = rungs.filter((one) => one.ladder === ladder)
		const holds = own.find((one) => !harder(parameters, one.parameters))
		const { index } = holds ?? own.at(-1)!
		places.push({ ladder, rung: ladder.rungs[index]!, index, beyond: holds === undefined })
	}
	return {
		drill,
		parameters,
		intensity: intensityOf(drill, parameters),
		hard: isHard(drill, parameters),
		shock,
		boxed: drill.highAboveCm !== undefined || (shock && parameters.heightCm !== undefined),
		assisted: drill.counting.metres?.kind === 'assisted',
		places,
	}
}

/** The rungs of a ladder on which a drill itself stands, lowest first. */
export const ownRungs = (drillId: string, ladder: Ladder): Rung[] =>
	ladder.rungs.filter((rung) => rung.drillId === drillId)
