import { closedByGround } from '../../rules/s10-place'
import type { CutShortReason } from '../../vocabulary/event-kinds'
import type { LogEvent, Mark } from '../../vocabulary/events'
import type { Drill } from '../../vocabulary/drill'
import { REGIONS, type Region } from '../../vocabulary/words'
import { doseLeft } from '../dose-left'
import { type LineProgress, isNext, nextInQueue } from '../line-progress'
import { overToday } from '../over-today'
import { positionAt } from '../queue-order'
import { sayEvent, shortName } from '../say-event'
import { MOVES_KEPT, amended, asBefore, moveOf, undoing } from './moves'
import { linesOf } from './read-field'
import { type Cursor, type OnLine, type Stand, after, askKey, lineOn } from './stand'
import { sayCutShort } from './say-cut-short'
import type { Tap } from './taps'
import type { Draft, Write } from './writes'

/** What a tap comes to: what is written, and where the phone stands once that is kept. */
export interface Pressed {
	/** All of them or none are kept. */
	writes: readonly Write[]
	/** Names what was written: for the line under the pad, and for Undo. */
	label: string
	/** Adds to the last move rather than being one. */
	amends: boolean
	/** Takes the last move back. */
	undoes: boolean
	/** Whom the next athlete comes after; null where nobody moves on. */
	moveOn: string | null
	/** What is on the phone afterwards, beside its moves. */
	next: Omit<Cursor, 'moves'>
	/** Whether the report that was written stands in front of everything. */
	hurts: boolean
}

const nothing = ({ cursor }: Stand, change: Partial<Cursor> = {}): Pressed => {
	const { moves: _moves, ...before } = cursor
	return {
		writes: [],
		label: '',
		amends: false,
		undoes: false,
		moveOn: null,
		next: { ...before, asking: null, ...change },
		hurts: false,
	}
}
const writing = (stand: Stand, writes: Write[], label: string, change: Partial<Pressed> = {}): Pressed => ({
	...nothing(stand),
	writes,
	label,
	...change,
})
const adding = (stand: Stand, drafts: Draft[], label: string, change: Partial<Pressed> = {}): Pressed =>
	writing(
		stand,
		drafts.map((add) => ({ add })),
		label,
		change,
	)

/** What is over for several people at once is asked about before it is written. */
const askFirst = (stand: Stand, tap: Tap, words: string, sure: boolean, then: () => Pressed): Pressed =>
	sure ? then() : nothing(stand, { asking: { tap, words } })

/**
 * What a tap comes to where the phone stands. Nothing happens by it: the device keeps what is to be written, and
 * `landed` says where the phone stands then.
 *
 * @param sure the tap answers the question that it asked before
 */
export function press(stand: Stand, tap: Tap, sure = false): Pressed {
	const { cursor, shown } = stand
	switch (tap.tap) {
		case 'sure':
			return cursor.asking ? press(stand, cursor.asking.tap, true) : nothing(stand)
		case 'no':
			return nothing(stand)
		case 'heard': {
			// Whoever may not go on makes room once that was read.
			const stays = !shown || isNext(shown.progress)
			const { athleteId } = cursor
			return nothing(stand, {
				hurt: null,
				athleteId: stays ? athleteId : (nextInQueue(stand.queue, shown.athlete.id) ?? athleteId),
			})
		}
		case 'entry': {
			const { entries } = stand.sheet
			const entry = entries[entries.findIndex(({ id }) => id === cursor.entryId) + tap.by]
			return entry ? nothing(stand, { entryId: entry.id, athleteId: null }) : nothing(stand)
		}
		case 'go-to':
			return stand.sheet.entries.some(({ id }) => id === tap.entryId)
				? nothing(stand, { entryId: tap.entryId, athleteId: null })
				: nothing(stand)
		case 'pick':
			return nothing(stand, { athleteId: tap.athleteId })
		case 'group':
			return nothing(stand, { group: tap.group, athleteId: null })
		case 'later':
			return nothing(stand, { later: [...cursor.later, askKey(tap.asked)] })
		case 'undo':
			return undo(stand)
		case 'mark':
		case 'missed':
		case 'untimed':
		case 'reps':
			return shown?.athlete.id === tap.athleteId ? rep(stand, shown, tap) : nothing(stand)
		case 'runs':
			return runs(stand, tap)
		case 'advice': {
			const act = shown?.athlete.id === tap.athleteId ? shown.advice.act : undefined
			return act
				? adding(stand, [act.draft], act.said, { moveOn: act.moveOn ? (act.draft.athleteId ?? null) : null })
				: nothing(stand)
		}
		case 'reading':
			return adding(stand, [tap.mark], `${named(stand, tap.mark.athleteId)}${tap.words}`, {
				moveOn: tap.mark.athleteId,
			})
		case 'rate':
			return rate(stand, tap.grade)
		case 'comfort':
			return stand.lastRep
				? adding(
						stand,
						[
							{
								...placeOf(stand.lastRep),
								type: 'observation',
								kind: 'comfort',
								value: { worst: tap.worst, braking: tap.braking },
							},
						],
						`${stand.undoLabel}, comfort ${tap.worst} of 5${tap.braking ? ', braking' : ''}`,
						{ amends: true },
					)
				: nothing(stand)
		case 'amend': {
			const label = `${(stand.undoLabel ?? '').split(', ').slice(0, 2).join(', ')}, ${sayEvent({ ...tap.event, ...tap.change } as LogEvent)}`
			return writing(stand, [{ correct: tap.event, change: tap.change }], label, { amends: true })
		}
		case 'correct':
			return writing(
				stand,
				[{ correct: tap.event, change: tap.change }],
				`${named(stand, tap.event.athleteId)}${sayEvent(tap.event)} corrected`,
			)
		case 'reorder': {
			const last = tap.moves.at(-1)
			return last
				? writing(
						stand,
						tap.moves.map(({ mark, to: { line } }) => ({
							correct: mark,
							change: { athleteId: line.athleteId, lineId: line.id } as Partial<LogEvent>,
						})),
						`${tap.moves.length} ${tap.moves.length === 1 ? 'time' : 'times'} moved`,
						{ moveOn: last.to.line.athleteId },
					)
				: nothing(stand)
		}
		case 'take-back':
			return writing(
				stand,
				tap.events.map((takeBack) => ({ takeBack })),
				tap.label,
			)
		case 'bring-back':
			return writing(
				stand,
				[{ correct: tap.event, change: asBefore(tap.before, tap.event) }],
				`${named(stand, tap.before.athleteId)}${sayEvent(tap.before)} again`,
			)
		case 'note':
			return note(stand, tap)
		case 'worry':
			return worry(stand, tap.athleteId)
		case 'report': {
			const seen = lineOn(stand, tap.athleteId)
			return adding(
				stand,
				[
					{
						// A report is kept, whether there is a line for it or not.
						...(seen ? lineOf(seen) : { athleteId: tap.athleteId }),
						type: 'observation',
						...(tap.report.kind === 'pain'
							? { kind: 'pain', value: { ...tap.report.value, moment: 'during' } }
							: { kind: tap.report.kind, value: {} }),
					} as Draft,
				],
				`${named(stand, tap.athleteId)}${tap.report.kind === 'pain' ? `pain ${tap.report.value.score}` : tap.report.kind}`,
				{ hurts: true },
			)
		}
		case 'slip':
			return cursor.hurt?.event
				? writing(stand, [{ takeBack: cursor.hurt.event }], `${sayEvent(cursor.hurt.event)} was a slip`, {
						next: { ...nothing(stand).next, hurt: null },
					})
				: nothing(stand)
		case 'other':
			return otherWas(stand, tap.athleteId)
		case 'answer': {
			const { region, side } = tap.asked.ask
			return adding(
				stand,
				[
					{
						athleteId: tap.asked.athleteId,
						type: 'observation',
						kind: 'quiet',
						value: { region, side, score: tap.score },
					},
				],
				`${named(stand, tap.asked.athleteId)}asked, ${tap.score} of 10`,
				// An answer of 2 or more is a report.
				{ hurts: tap.score >= 2 },
			)
		}
		case 'swap':
			return swap(stand, tap, sure)
		case 'end':
			return end(stand, tap, sure)
		case 'further':
			return further(stand, tap, sure)
		case 'place':
			return place(stand, tap)
		case 'join':
			return join(stand, tap)
		case 'here':
			return here(stand, tap.athleteId, tap.present)
		case 'to-group':
			return adding(
				stand,
				[
					{
						athleteId: tap.athleteId,
						type: 'decision',
						kind: 'queue',
						value: {
							group: tap.group,
							position: stand.order.find(({ athleteId }) => athleteId === tap.athleteId)?.position ?? 0,
						},
					},
				],
				`${named(stand, tap.athleteId)}${tap.group === 0 ? 'no group' : `group ${tap.group}`}`,
			)
		case 'split':
			return askFirst(stand, tap, `Put everybody into groups by level? ${stand.order.length} move.`, sure, () =>
				adding(
					stand,
					stand.order.map(({ athleteId, position }) => ({
						athleteId,
						type: 'decision',
						kind: 'queue',
						value: { group: stand.sheet.athletes.find(({ id }) => id === athleteId)?.level ?? 1, position },
					})),
					'groups by level',
				),
			)
		case 'move': {
			const others = stand.order.filter(
				({ athleteId }) => athleteId !== tap.athleteId && stand.queue.some(({ line }) => line.athleteId === athleteId),
			)
			const group = stand.order.find(({ athleteId }) => athleteId === tap.athleteId)?.group ?? 0
			return adding(
				stand,
				[
					{
						athleteId: tap.athleteId,
						type: 'decision',
						kind: 'queue',
						value: { group, position: positionAt(others, tap.to) },
					},
				],
				`${named(stand, tap.athleteId)}moved`,
			)
		}
		case 'conditions':
			return adding(
				stand,
				[{ athleteId: null, type: 'decision', kind: 'conditions', value: tap.value }],
				tap.value.surface === undefined
					? `wind ${tap.value.windMps ?? 0} m/s`
					: `${tap.value.surface.replace('-', ' ')} from now`,
			)
		case 'go-on': {
			const ends = stand.current.filter(({ kind }) => kind === 'cut-short')
			return ends.length === 0
				? nothing(stand)
				: askFirst(stand, tap, `Go on after all, with ${people(ends.length)}?`, sure, () =>
						writing(
							stand,
							ends.map((takeBack) => ({ takeBack })),
							'session goes on',
						),
					)
		}
		case 'cut-short':
			return cutShort(stand, tap.reason, sure)
	}
}

/** Where the phone stands once what a tap wrote is kept. */
export function landed(stand: Stand, pressed: Pressed, events: readonly LogEvent[]): Cursor {
	const { moves } = stand
	const { next, writes, undoes, amends, label, hurts, moveOn } = pressed
	if (undoes) {
		const [first] = events
		return { ...next, athleteId: first?.athleteId ?? next.athleteId, moves: moves.slice(0, -1) }
	}
	if (writes.length === 0) return { ...next, moves: stand.cursor.moves }
	const made = moveOf(label, writes, events)
	const last = moves.at(-1)
	const kept = amends && last ? [...moves.slice(0, -1), amended(last, made)] : [...moves, made].slice(-MOVES_KEPT)
	const [first] = events
	return {
		...next,
		moves: kept,
		// Whoever is on the line stays there until they are done: nobody is changed under the thumb.
		athleteId: moveOn ? after(stand, moveOn, events) : (next.athleteId ?? stand.shown?.athlete.id ?? null),
		...(hurts && first?.athleteId ? { hurt: { athleteId: first.athleteId, event: first } } : {}),
	}
}

/** Where a tap on the line belongs. */
const lineOf = ({ progress: { line } }: OnLine) => ({
	athleteId: line.athleteId,
	entryId: line.entryId,
	lineId: line.id,
})
/** Where a rep was done. */
const placeOf = ({ athleteId, entryId, lineId, setNo, repNo, piece }: Mark) => ({
	athleteId,
	entryId,
	lineId,
	setNo,
	repNo,
	...(piece === undefined ? {} : { piece }),
})
const named = ({ nameOf }: Stand, athleteId: string | null) => (athleteId ? `${shortName(nameOf(athleteId))}, ` : '')
const people = (count: number) => (count === 1 ? 'one athlete' : `${count} athletes`)

function rep(stand: Stand, shown: OnLine, tap: Extract<Tap, { tap: 'mark' | 'missed' | 'untimed' | 'reps' }>): Pressed {
	const { progress, athlete } = shown
	const side = tap.tap === 'reps' ? undefined : (tap.side ?? progress.side ?? undefined)
	const place = {
		...lineOf(shown),
		...progress.next,
		...(side && !progress.swap ? { side } : {}),
		// Only a mark says what it was done as.
		...(progress.swap ? { asDrill: progress.swap } : {}),
	}
	const mark = (said: object) => ({ ...place, type: 'mark', ...said }) as Draft
	const drafts = (): { drafts: Draft[]; said: string } => {
		switch (tap.tap) {
			case 'mark':
				return { drafts: [mark(tap.measured)], said: side && !progress.swap ? `${tap.label} ${side}` : tap.label }
			case 'missed':
				return { drafts: [mark({ kind: 'missed', value: tap.reason ? { reason: tap.reason } : {} })], said: 'missed' }
			case 'untimed':
				return { drafts: [mark({ kind: 'done', value: { reps: 1 } })], said: 'no number' }
			case 'reps': {
				const done = mark({ kind: 'done', value: { reps: tap.reps } })
				if (tap.grade === null) return { drafts: [done], said: 'done, not judged' }
				const { asDrill: _asDrill, ...at } = place
				const judged = { ...at, type: 'observation', kind: 'quality', value: { grade: tap.grade, scope: 'set' } }
				return { drafts: [judged as Draft, done], said: `${tap.reps} reps, ${tap.grade.replace('-', ' ')}` }
			}
		}
	}
	const { drafts: made, said } = drafts()
	// Left and right of one rep are done one after the other.
	const otherSideFollows = progress.side !== null && side !== undefined && !progress.half
	return adding(stand, made, `${named(stand, athlete.id)}${said}`, {
		moveOn: otherSideFollows || pieceFollows(progress) ? null : athlete.id,
	})
}

/** Pieces that follow each other this closely are done without anybody in between, s [our setting]. */
const STRAIGHT_ON_S = 15
const pieceFollows = ({ line, next }: LineProgress): boolean =>
	next.piece !== undefined && next.piece < line.pieces!.length && line.rest.repsS <= STRAIGHT_ON_S

/** What a stopwatch said: each run is a rep of the one who ran it, at the time of the finish. */
function runs(stand: Stand, { runs: timed, at, windMps }: Extract<Tap, { tap: 'runs' }>): Pressed {
	const done = timed.flatMap(({ athleteId, splits }) => {
		const progress = stand.queue.find(({ line }) => line.athleteId === athleteId)
		if (!progress || progress.line.logs !== 'sprint' || progress.swap) return []
		const value = { splits, method: 'stopwatch', ...(windMps === null ? {} : { windMps }) }
		const { line, next } = progress
		const place = { athleteId: line.athleteId, entryId: line.entryId, lineId: line.id, ...next }
		return [{ progress, add: { ...place, type: 'mark', kind: 'sprint', value } as Draft }]
	})
	const [first] = done
	if (!first) return nothing(stand)
	const last = stand.queue.findLast((progress) => done.some((one) => one.progress === progress))!
	const time = (timed[0]!.splits.at(-1)?.timeS ?? 0).toFixed(2)
	return writing(
		stand,
		done.map(({ add }) => ({ add, at })),
		done.length === 1
			? `${named(stand, first.progress.line.athleteId)}${time} s`
			: `${done.length} times by stopwatch, the first ${time} s`,
		{ moveOn: last.line.athleteId },
	)
}

/** How the last rep looked; a second grade takes the place of the first. */
function rate(stand: Stand, grade: 'good' | 'not-yet' | 'poor'): Pressed {
	const { lastRep, moves } = stand
	if (!lastRep) return nothing(stand)
	const label = `${named(stand, lastRep.athleteId)}${sayEvent(lastRep)}, ${grade.replace('-', ' ')}`
	const before = moves
		.at(-1)
		?.steps.map(({ event }) => event)
		.find((event) => event.kind === 'quality' && event.value.scope === 'rep')
	if (before?.kind === 'quality')
		return writing(
			stand,
			[{ correct: before, change: { value: { grade, scope: 'rep' } } as Partial<LogEvent> }],
			label,
			{
				amends: true,
			},
		)
	return adding(
		stand,
		[{ ...placeOf(lastRep), type: 'observation', kind: 'quality', value: { grade, scope: 'rep' } }],
		label,
		{ amends: true },
	)
}

/** A word about the session, an athlete, what they do here, or one rep. */
function note(stand: Stand, tap: Extract<Tap, { tap: 'note' }>): Pressed {
	const { about, text } = tap
	const keep = (at: object, athleteId: string | null) =>
		adding(
			stand,
			[{ ...at, athleteId, type: 'observation', kind: 'note', value: { about, text } } as Draft],
			`${named(stand, athleteId)}note: ${text}`,
		)
	if (about === 'session') return keep({}, null)
	if (about === 'rep') return keep(placeOf(tap.rep), tap.rep.athleteId)
	const seen = about === 'drill' ? lineOn(stand, tap.athleteId) : null
	return keep(seen ? lineOf(seen) : {}, tap.athleteId)
}

function worry(stand: Stand, athleteId: string): Pressed {
	const seen = lineOn(stand, athleteId)
	const region = seen && mostLoaded(seen.drill)
	return region
		? adding(
				stand,
				[{ ...lineOf(seen), type: 'observation', kind: 'worry', value: { region } }],
				`${named(stand, athleteId)}a worry`,
			)
		: nothing(stand)
}
const mostLoaded = (drill: Drill | undefined): Region | null =>
	REGIONS.map((region) => [region, drill?.regions[region] ?? 0] as const)
		.filter(([, load]) => load > 0)
		.sort((a, b) => b[1] - a[1])[0]?.[0] ?? null

/** The report was somebody else's: it stays what it was, on the line of the one it is about. */
function otherWas(stand: Stand, athleteId: string): Pressed {
	const event = stand.cursor.hurt?.event
	if (!event) return nothing(stand)
	// Where it was said, whatever is on the screen by now.
	const entryId = 'entryId' in event ? event.entryId : undefined
	const own = stand.sheet.lines.find((line) => line.entryId === entryId && line.athleteId === athleteId)
	const change = { athleteId, lineId: own?.id, ...(own ? {} : { entryId: undefined }) } as Partial<LogEvent>
	return writing(stand, [{ correct: event, change }], `${named(stand, athleteId)}${sayEvent(event)}`, {
		amends: true,
		hurts: true,
	})
}

/** Whom a drill in the place of another is not for today, and why it stays as it is for them. */
export const mayDo = (
	{ sheet, limitsOf, surface }: Pick<Stand, 'sheet' | 'limitsOf' | 'surface'>,
	athleteId: string,
	drill: Drill,
): boolean =>
	!(sheet.athletes.find(({ id }) => id === athleteId)?.barred ?? []).includes(drill.id) &&
	overToday(limitsOf(athleteId), drill, drill.defaults.parameters) === null &&
	closedByGround(surface, drill, drill.defaults.parameters) === null

function swap(stand: Stand, tap: Extract<Tap, { tap: 'swap' }>, sure: boolean): Pressed {
	const { sheet } = stand
	const { drill } = tap
	const draft = ({ line }: LineProgress): Draft => ({
		athleteId: line.athleteId,
		entryId: line.entryId,
		lineId: line.id,
		type: 'decision',
		kind: 'swap',
		value: { drillId: drill.id as never, drillVersion: drill.version },
	})
	if (tap.who === 'one') {
		const seen = lineOn(stand, tap.athleteId)
		return seen ? adding(stand, [draft(seen.progress)], `${named(stand, tap.athleteId)}${drill.name}`) : nothing(stand)
	}
	const whole = sheet.drills[`${drill.id}/${drill.version}`]
	const open = stand.queue.filter((progress) => !progress.finished)
	const able = open.filter(({ line }) => whole && mayDo(stand, line.athleteId, whole))
	const rest = open.filter((progress) => !able.includes(progress))
	const except =
		rest.length === 0
			? ''
			: ` Not for ${rest.map(({ line }) => shortName(stand.nameOf(line.athleteId))).join(', ')}: it is not for them today.`
	if (able.length === 0) return nothing(stand)
	return askFirst(stand, tap, `${drill.name} instead, for ${people(able.length)}?${except}`, sure, () =>
		adding(stand, able.map(draft), `${drill.name} for ${people(able.length)}`),
	)
}

function end(stand: Stand, tap: Extract<Tap, { tap: 'end' }>, sure: boolean): Pressed {
	const draft = ({ line }: LineProgress): Draft => ({
		athleteId: line.athleteId,
		entryId: line.entryId,
		lineId: line.id,
		type: 'decision',
		kind: 'end-set',
		value: { reason: tap.reason },
	})
	if (tap.who === 'one') {
		const seen = lineOn(stand, tap.athleteId)
		return seen
			? adding(stand, [draft(seen.progress)], `${named(stand, tap.athleteId)}ended`, {
					// Whoever is on the line by now stays there.
					moveOn: tap.athleteId === stand.shown?.athlete.id ? tap.athleteId : null,
				})
			: nothing(stand)
	}
	const open = stand.queue.filter((progress) => !progress.ended && !progress.finished)
	if (open.length === 0) return nothing(stand)
	const begun = open.filter(({ repsDone }) => repsDone > 0).length
	const words = `End this drill for ${people(open.length)}?${begun === 0 ? ' Nobody has begun.' : ` ${begun} of them have begun.`}`
	return askFirst(stand, tap, words, sure, () =>
		adding(stand, open.map(draft), `drill ended for ${people(open.length)}`),
	)
}

/** What may be added here and now, with for how many it is; those for whom it is for most come first. */
export function drillsToAdd(stand: Stand): { drill: Drill; able: number }[] {
	const here = stand.sheet.athletes.filter(({ id }) => !stand.away.has(id))
	const newest = new Map<string, Drill>()
	for (const drill of Object.values(stand.sheet.drills))
		if ((newest.get(drill.id)?.version ?? 0) < drill.version) newest.set(drill.id, drill)
	return [...newest.values()]
		.map((drill) => ({ drill, able: here.filter(({ id }) => mayDo(stand, id, drill)).length }))
		.filter(({ able }) => able > 0)
		.sort((a, b) => b.able - a.able || (a.drill.name < b.drill.name ? -1 : 1))
}

/** A drill nobody planned, in the dose each begins with, for everybody who is here and for whom it is today. */
function further(stand: Stand, tap: Extract<Tap, { tap: 'further' }>, sure: boolean): Pressed {
	const { sheet, away, cursor } = stand
	const { id, version } = tap.drill
	const drill = sheet.drills[`${id}/${version}`]
	const [entryId, ...lineIds] = tap.ids
	if (!drill || entryId === undefined) return nothing(stand)
	const here = sheet.athletes.filter((athlete) => !away.has(athlete.id) && stand.cutShort === null)
	const able = here.filter((athlete) => mayDo(stand, athlete.id, drill))
	if (able.length === 0 || lineIds.length < able.length) return nothing(stand)
	const rest = here.filter((athlete) => !able.includes(athlete))
	const except =
		rest.length === 0 ? '' : ` Not for ${rest.map(({ name }) => shortName(name)).join(', ')}: it is not for them today.`
	const { parameters, rest: between } = drill.defaults
	const words = `${drill.name} after this drill, for ${people(able.length)}?${except}`
	return askFirst(stand, tap, words, sure, () =>
		adding(
			stand,
			[
				{
					athleteId: null,
					type: 'decision',
					kind: 'further',
					value: {
						entryId,
						after: cursor.entryId,
						drillId: drill.id,
						drillVersion: drill.version,
						lines: able.map((athlete, index) => ({
							athleteId: athlete.id,
							lineId: lineIds[index]!,
							planned: {
								drillId: drill.id,
								drillVersion: drill.version,
								ladderId: null,
								rungId: null,
								// What an athlete of that level starts with, not everybody's dose.
								dose: drill.doses[athlete.level],
								parameters,
								rest: between,
							},
						})),
					},
				} as Draft,
			],
			`${drill.name} added for ${people(able.length)}`,
		),
	)
}

/** The whole order is said, so that two phones that move something at once do not end in a third one. */
function place(stand: Stand, tap: Extract<Tap, { tap: 'place' }>): Pressed {
	const { entries } = stand.sheet
	const moved = entries.find(({ id }) => id === tap.entryId)
	const others = entries.filter((entry) => entry !== moved)
	const to = Math.min(Math.max(tap.to, 0), others.length)
	if (!moved || entries[to] === moved) return nothing(stand)
	const order = [...others.slice(0, to), moved, ...others.slice(to)]
	return adding(
		stand,
		[
			{
				athleteId: null,
				type: 'decision',
				kind: 'drill-order',
				value: { entryIds: order.map(({ id }) => id) },
			} as Draft,
		],
		`${moved.name} moved to place ${to + 1}`,
	)
}

/** Somebody comes who is not on the sheet: with the lines that are permitted to them, at the end of the queue. */
function join(stand: Stand, { athleteId, name, ids }: Extract<Tap, { tap: 'join' }>): Pressed {
	const { sheet } = stand
	const lines = (name === null ? sheet.others?.find(({ id }) => id === athleteId) : sheet.stranger)?.lines
	if (!lines || sheet.athletes.some(({ id }) => id === athleteId) || ids.length < lines.length) return nothing(stand)
	const said = name ?? sheet.others?.find(({ id }) => id === athleteId)?.name ?? ''
	return adding(
		stand,
		[
			{
				athleteId,
				type: 'decision',
				kind: 'guest',
				value: {
					...(name === null ? {} : { name }),
					lines: lines.map(({ entryId, planned }, index) => ({ entryId, lineId: ids[index]!, planned })),
				},
			} as Draft,
		],
		`${shortName(said)}, has come`,
	)
}

/** Leaving, and coming back: whoever comes late goes to the end of the queue. */
function here(stand: Stand, athleteId: string, present: boolean): Pressed {
	if (!present)
		return adding(
			stand,
			[{ athleteId, type: 'decision', kind: 'attendance', value: { present: false } }],
			`${named(stand, athleteId)}not here`,
			{ moveOn: athleteId },
		)
	const said = stand.current.filter((event) => event.kind === 'attendance' && event.athleteId === athleteId)
	const group = stand.order.find((place) => place.athleteId === athleteId)?.group ?? 0
	return writing(
		stand,
		[
			...said.map((takeBack) => ({ takeBack })),
			{
				add: {
					athleteId,
					type: 'decision',
					kind: 'queue',
					value: { group, position: positionAt(stand.order, stand.order.length) },
				},
			},
		],
		`${named(stand, athleteId)}has come`,
	)
}

function cutShort(stand: Stand, reason: CutShortReason, sure: boolean): Pressed {
	const { sheet, away, current } = stand
	const tap: Tap = { tap: 'cut-short', reason }
	const present = sheet.athletes.filter(({ id }) => !away.has(id))
	if (present.length === 0 || stand.cutShort !== null) return nothing(stand)
	const left = present.map((athlete) => ({ athlete, left: doseLeft(sheet, athlete, current) }))
	const reps = left.reduce((sum, one) => sum + one.left.repsLeft, 0)
	return askFirst(
		stand,
		tap,
		`End the session now for ${people(present.length)}: ${sayCutShort(reason)}? ${reps} reps stay undone.`,
		sure,
		() =>
			adding(
				stand,
				left.map(({ athlete, left: one }) => ({
					athleteId: athlete.id,
					type: 'decision',
					kind: 'cut-short',
					value: {
						reason,
						left: {
							reps: one.repsLeft,
							contacts: Math.max(0, one.contacts.planned - one.contacts.done),
							fastMetres: Math.max(0, one.fastMetres.planned - one.fastMetres.done),
						},
					},
				})) as Draft[],
				`session ended, ${sayCutShort(reason)}`,
			),
	)
}

function undo(stand: Stand): Pressed {
	const last = stand.moves.at(-1)
	if (!last) return nothing(stand)
	return writing(stand, undoing(last, stand.current, stand.all), last.label, { undoes: true })
}

/** The lines somebody goes on with today, in the order of the sheet. */
export const remaining = (stand: Stand, athleteId: string): LineProgress[] =>
	linesOf(stand.sheet, athleteId)
		.filter(({ family }) => family !== 'prepare')
		.map((line) =>
			stand.standing(
				line,
				stand.current.filter((event) => 'entryId' in event && event.entryId === line.entryId),
			),
		)
		.filter(isNext)
