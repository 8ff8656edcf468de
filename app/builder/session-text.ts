import { PARAMETERS, type Drill, type Ladder, type Library, type ParameterName } from '#core/library/types'
import type { PreviewEntry } from '#core/plan/preview-sheet'
import type { ProposedEntry } from '#core/plan/propose-session'
import { type EntryTuning, tuningForAnotherDay } from '#core/plan/resolve-sheet'
import { DAY_ROLES, type DayRole } from '#core/plan/targets'
import type { SessionTemplate } from '#core/plan/template'

/** One entry as it is typed: numbers as text, so that what is wrong with them can be said and is not lost. */
export interface EntryText {
	/** Of an entry that is kept; a fresh one has none. */
	id?: string
	/** For the list on the screen. */
	key: string
	part: string
	/** "drill:pogo" or "ladder:stiffness" */
	pick: string
	sets: string
	reps: string
	restS: string
	parameters: { [K in ParameterName]?: string }
	doseFactor: number
	lanes: number
	together: number
	tuning: EntryTuning | null
}
export interface SessionText {
	squadId: string
	day: string
	startTime: string
	title: string
	place: string
	surface: string
	plannedMinutes: string
	role: DayRole
	share: number
	athleteIds: string[]
	entries: EntryText[]
}

/** What can be typed at an entry, and its unit; the rest stays as the drill has it. */
export const TYPED_PARAMETERS = [
	['distanceM', 'm'],
	['heightCm', 'cm'],
	['angleDeg', '°'],
	['ballKg', 'kg'],
	['runInM', 'm run-in'],
] as const

const text = (value: number | undefined) => (value === undefined ? '' : String(value))
const number = (value: string): number | string | undefined =>
	value.trim() === ''
		? undefined
		: Number.isFinite(Number(value.replace(',', '.')))
			? Number(value.replace(',', '.'))
			: value
const typed = (value: string | undefined): number | undefined => {
	const read = number(value ?? '')
	return typeof read === 'number' ? read : undefined
}

let made = 0
const newKey = () => `new-${(made += 1)}`

type Numbers = {
	dose: { sets: number; reps: number }
	restS: number
	parameters: { [K in ParameterName]?: number | undefined }
}
export function entryText(
	part: string,
	pick: string,
	{ dose, restS, parameters }: Numbers,
	more: Partial<Pick<EntryText, 'id' | 'doseFactor' | 'lanes' | 'together' | 'tuning'>> = {},
): EntryText {
	return {
		key: more.id ?? newKey(),
		part,
		pick,
		sets: text(dose.sets),
		reps: text(dose.reps),
		restS: text(restS),
		parameters: Object.fromEntries(
			PARAMETERS.flatMap((name) => (parameters[name] === undefined ? [] : [[name, text(parameters[name])]])),
		),
		doseFactor: 1,
		lanes: 1,
		together: 1,
		tuning: null,
		...more,
	}
}
/** A drill or a ladder as it is first put on a sheet. */
export function freshEntry(drill: Drill, ladder: Ladder | null, part: string, lanes = 1): EntryText {
	const { sets, reps, restS, repS: _repS, ...parameters } = drill.defaults
	return entryText(
		part,
		ladder ? `ladder:${ladder.id}` : `drill:${drill.id}`,
		{ dose: { sets, reps }, restS, parameters: ladder ? {} : parameters },
		{ lanes },
	)
}
export const proposedText = (entry: ProposedEntry): EntryText =>
	entryText(entry.part, entry.ladderId ? `ladder:${entry.ladderId}` : `drill:${entry.drillId}`, entry, {
		doseFactor: entry.doseFactor,
		lanes: entry.lanes,
		together: entry.together,
		tuning: entry.tuning,
	})

/** Which drill an entry speaks of first, and its ladder; null while nothing is picked. */
export function pickOf(
	entry: Pick<EntryText, 'pick'>,
	library: Library,
): { drill: Drill; ladder: Ladder | null; name: string } | null {
	const [kind, id = ''] = entry.pick.split(':')
	const ladder = kind === 'ladder' ? library.ladders[id] : undefined
	const drill = library.drills[ladder?.rungs[0]?.drillId ?? (kind === 'drill' ? id : '')]
	return drill ? { drill, ladder: ladder ?? null, name: ladder?.name ?? drill.name } : null
}

/** What stands on the sheet so far, as far as it can be read. */
export function previewEntries(entries: readonly EntryText[], library: Library): PreviewEntry[] {
	return entries.flatMap((entry): PreviewEntry[] => {
		const pick = pickOf(entry, library)
		const dose = { sets: typed(entry.sets) ?? 0, reps: typed(entry.reps) ?? 0 }
		if (!pick || !(dose.sets >= 1 && dose.sets <= 20 && dose.reps >= 1 && dose.reps <= 60)) return []
		const parameters = Object.fromEntries(
			PARAMETERS.flatMap((name) => {
				const value = typed(entry.parameters[name]) ?? (pick.ladder ? undefined : pick.drill.defaults[name])
				return value === undefined || value < 0 || (name === 'angleDeg' && value > 180) ? [] : [[name, value]]
			}),
		)
		const form = Object.values(entry.tuning?.variants ?? {})[0]
		return [
			{
				id: entry.key,
				name: form ? entry.part : pick.name,
				family: pick.ladder?.family ?? pick.drill.family,
				drillId: pick.drill.id,
				ladderId: pick.ladder?.id ?? null,
				dose,
				parameters,
				restS: typed(entry.restS) ?? 0,
				doseFactor: entry.doseFactor,
				lanes: entry.lanes,
				together: entry.together,
				tuning: entry.tuning,
			},
		]
	})
}

/** Numbers that were typed as numbers, everything else as it was typed, so that the check can say what is wrong with it. */
export function draftOf(session: SessionText): unknown {
	return {
		squadId: session.squadId,
		day: session.day,
		startTime: session.startTime,
		title: session.title,
		place: session.place,
		...(session.surface ? { surface: session.surface } : {}),
		plannedMinutes: number(session.plannedMinutes),
		role: session.role,
		share: session.share,
		athleteIds: session.athleteIds,
		entries: session.entries.map((entry) => {
			const [kind, id] = entry.pick.split(':')
			const fields = {
				sets: number(entry.sets),
				reps: number(entry.reps),
				restS: number(entry.restS),
				...Object.fromEntries(Object.entries(entry.parameters).map(([name, value]) => [name, number(value)])),
			}
			return {
				...(entry.id ? { id: entry.id } : {}),
				part: entry.part,
				...(kind === 'ladder' ? { ladderId: id } : kind === 'drill' ? { drillId: id } : {}),
				...Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)),
				doseFactor: entry.doseFactor,
				lanes: entry.lanes,
				together: entry.together,
				...(entry.tuning ? { tuning: entry.tuning } : {}),
			}
		}),
	}
}

/** What the form sent, or null when it was tampered with. */
export function readSessionText(value: FormDataEntryValue | null): SessionText | null {
	try {
		const parsed = JSON.parse(String(value)) as SessionText
		const whole =
			typeof parsed === 'object' &&
			parsed !== null &&
			Array.isArray(parsed.entries) &&
			Array.isArray(parsed.athleteIds) &&
			typeof parsed.plannedMinutes === 'string' &&
			DAY_ROLES.includes(parsed.role)
		return whole &&
			parsed.entries.every(
				(entry) =>
					typeof entry?.pick === 'string' &&
					typeof entry.sets === 'string' &&
					typeof entry.reps === 'string' &&
					typeof entry.restS === 'string' &&
					typeof entry.parameters === 'object' &&
					entry.parameters !== null &&
					Object.values(entry.parameters).every((one) => typeof one === 'string'),
			)
			? parsed
			: null
	} catch {
		return null
	}
}

/** The sheet as an open document, without anybody's name in it; null while an entry cannot be read. */
export function templateOf(session: SessionText, library: Library): SessionTemplate | null {
	const entries = previewEntries(session.entries, library)
	if (entries.length !== session.entries.length || entries.length === 0) return null
	return {
		format: 'dromos-session',
		version: 1,
		name: session.title.trim() || 'Session',
		minutes: Math.min(240, Math.max(10, Math.round(typed(session.plannedMinutes) ?? 75))),
		entries: entries.map(
			({ drillId, ladderId, dose, parameters, restS, doseFactor, lanes, together, tuning }, index) => {
				const { variants, fill } = tuningForAnotherDay(tuning) ?? {}
				return {
					part: session.entries[index]!.part.trim() || 'Part',
					...(ladderId ? { ladderId } : { drillId }),
					dose,
					parameters,
					restS,
					doseFactor,
					lanes,
					together,
					...(variants ? { variants } : {}),
					...(fill ? { fill } : {}),
				} as SessionTemplate['entries'][number]
			},
		),
	}
}
/** A template's entries on a sheet; what the club's library does not hold is named. */
export function entriesOfTemplate(
	{ entries }: SessionTemplate,
	library: Library,
): { entries: EntryText[]; unknown: string[] } {
	const unknown: string[] = []
	return {
		entries: entries.flatMap(({ part, drillId, ladderId, variants, fill, ...rest }) => {
			const pick = ladderId ? `ladder:${ladderId}` : `drill:${drillId}`
			const missing = [
				...(pickOf({ pick }, library) ? [] : [ladderId ?? drillId ?? part]),
				...Object.values(variants ?? {}).flatMap((form) =>
					form && !library.drills[form.drillId] ? [form.drillId] : [],
				),
			]
			unknown.push(...missing)
			if (missing.length > 0) return []
			const tuning = { ...(variants ? { variants } : {}), ...(fill ? { fill } : {}) } as EntryTuning
			return [
				entryText(part, pick, rest as Numbers, {
					doseFactor: rest.doseFactor,
					lanes: rest.lanes,
					together: rest.together,
					tuning: Object.keys(tuning).length > 0 ? tuning : null,
				}),
			]
		}),
		unknown,
	}
}
