import { PARAMETERS } from '../vocabulary/parameters'
import type { Drill } from '../vocabulary/drill'
import { QUALITY_OF } from '../vocabulary/entry'
import type { Ladder } from '../vocabulary/ladder'
import type { Library } from '../vocabulary/library'
import type { Theme, ThemePiece } from '../vocabulary/theme'
import { needsLevelTwo } from '../rules/s4-level-age-mass'
import { formOf } from '../rules/form'

/** What a shape cannot say, by field; empty when the drill is sound beside the rest of the library. */
export function drillProblems(drill: Drill, library: Library): Record<string, string> {
	const problems: Record<string, string> = {}
	for (const [region, id] of Object.entries(drill.alternatives)) {
		const other = library.drills[id]
		if (!other) problems[`alternatives.${region}`] = `“${id}” is not a drill of the library.`
		else if ((other.regions[region as keyof Drill['regions']] ?? 0) > 0)
			problems[`alternatives.${region}`] = `“${other.name}” loads that region itself.`
	}
	for (const name of PARAMETERS) {
		const [value, range] = [drill.defaults.parameters[name], drill.ranges[name]]
		if (range && range[0] > range[1])
			problems[`ranges.${name}`] = `“${range[0]}–${range[1]}”: the lower end comes first.`
		else if (value !== undefined && range && (value < range[0] || value > range[1]))
			problems[`ranges.${name}`] = `“${value}” lies outside ${range[0]}–${range[1]}.`
	}
	// Never more than five rebounds from a box in a set, whoever writes it.
	if (drill.intensity === 'shock' && [drill.defaults.dose, ...Object.values(drill.doses)].some((dose) => dose.reps > 5))
		problems['defaults.dose.reps'] = 'Never more than 5 rebounds a set.'
	if (drill.measures.includes('sprint') && !drill.start)
		problems.start = 'A timed drill says how it starts: unlike starts are never compared.'
	return problems
}

/** What a shape cannot say about a ladder, by field. Rungs that athletes stand on must stay. */
export function ladderProblems(ladder: Ladder, library: Library, before: Ladder | undefined): Record<string, string> {
	const problems: Record<string, string> = {}
	const ids = ladder.rungs.map((rung) => rung.id)
	if (new Set(ids).size < ids.length) problems.rungs = 'Two rungs have the same id.'
	for (const gone of before?.rungs.filter((rung) => !ids.includes(rung.id)) ?? [])
		problems.rungs = `${gone.name} must stay: athletes may stand on it. Move it, or rename it.`
	ladder.rungs.forEach((rung, index) => {
		const drill = library.drills[rung.drillId]
		const at = (field: string) => `rungs.${index}.${field}`
		if (!drill) {
			problems[at('drillId')] = `“${rung.drillId}” is not a drill of the library.`
			return
		}
		if (rung.level < (ladder.rungs[index - 1]?.level ?? 1))
			problems[at('level')] =
				`Level ${rung.level} after level ${ladder.rungs[index - 1]?.level}: levels never fall upwards.`
		if (drill.intensity === 'shock' && rung.dose.reps > 5) problems[at('reps')] = 'Never more than 5 rebounds a set.'
		if (rung.pass.kind === 'contact-ceiling' && !drill.measures.includes('contact'))
			problems[at('pass')] = `${drill.name} yields no contact time.`
		if (rung.pass.kind === 'time-within' && !drill.start) problems[at('pass')] = `${drill.name} is not timed.`
		if (rung.pass.kind === 'not-below' && !drill.measures.includes(rung.pass.of))
			problems[at('pass')] = `${drill.name} yields no ${rung.pass.of}.`
		for (const gate of rung.gates) {
			const other =
				gate.kind === 'passed' ? (gate.ladderId === ladder.id ? ladder : library.ladders[gate.ladderId]) : undefined
			if (gate.kind === 'passed' && !other?.rungs.some((one) => one.id === gate.rungId))
				problems[at('gates')] = `There is no rung “${gate.rungId}”.`
		}
		if (rung.pieces) {
			const judged = rung.pieces.filter((piece) => piece.judged)
			if (judged.length !== 1 || judged[0]!.drillId !== rung.drillId)
				problems[at('pieces')] = 'The drill of the rung is the one piece of its complex that is judged.'
			else if (rung.pieces.some((piece) => !library.drills[piece.drillId]))
				problems[at('pieces')] = 'A piece names a drill that is not in the library.'
		}
		// A rebound needs its level gate: nobody may write it away.
		if (needsLevelTwo(formOf(drill, rung.parameters, library)) && rung.level < 2)
			problems[at('level')] = `${drill.name} opens at level 2 and never below.`
	})
	return problems
}

/** What a shape cannot say about the recipe of a session, by field. */
export function themeProblems(theme: Theme, library: Library): Record<string, string> {
	const problems: Record<string, string> = {}
	const { role, main, second, pieces, kept, inBlock } = theme
	const place = (field: 'opening' | 'pieces' | 'kept' | 'closing', piece: ThemePiece, index: number) => {
		const at = `${field}.${index}`
		if ('ladderId' in piece) {
			const ladder = library.ladders[piece.ladderId]
			if (!ladder) problems[at] = `“${piece.ladderId}” is not a ladder of the library.`
			else if (ladder.path)
				problems[at] = `${ladder.name} is a way back: it is walked by who needs it, never put in a session.`
			return
		}
		const ids = 'forms' in piece ? piece.forms.map(({ drillId }) => drillId) : [piece.drillId]
		for (const id of ids) if (!library.drills[id]) problems[at] = `“${id}” is not a drill of the library.`
		if ('forms' in piece) {
			const levels = piece.forms.map(({ level }) => level)
			if (
				levels.some((level, next) => next > 0 && level <= levels[next - 1]! && !(level === 3 && levels[next - 1] === 3))
			)
				problems[at] = 'One form for a level, the lowest level first; only level 3 may have several.'
		} else if (library.drills[piece.drillId]?.intensity === 'shock' && (piece.dose?.reps ?? 0) > 5)
			problems[at] = 'Never more than 5 rebounds a set.'
	}
	for (const field of ['opening', 'pieces', 'kept', 'closing'] as const)
		theme[field].forEach((piece, index) => place(field, piece, index))
	if (role !== 'hard') {
		if (main !== null || second !== null) problems.main = 'Only a hard day is about something.'
		if (kept.length > 0) problems.kept = 'Only a hard day keeps something beside.'
		if (Object.values(inBlock).some((turn) => turn !== undefined))
			problems.inBlock = 'A block gives turns to hard days alone.'
		return problems
	}
	if (main === null) {
		if (second !== null || kept.length > 0)
			problems.main = 'A day for everything a little has no second and keeps nothing beside.'
		if (Object.values(inBlock).some((turn) => turn !== undefined))
			problems.inBlock = 'A block gives turns to days that are about something.'
	} else if (main === second) problems.second = 'The second quality is another one than the first.'
	else if (!pieces.some((piece) => 'quantity' in piece && piece.quantity && QUALITY_OF[piece.quantity] === main))
		problems.pieces = 'No piece is there for what the day is about.'
	return problems
}
