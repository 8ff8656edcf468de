import Type, { type TObject, type TSchema } from 'typebox'
import { closuresOn } from '../care/closures'
import { STARTER_LIBRARY } from '../library/starter-library'
import { MeasureError } from '../measure/measure-error'
import { type Acknowledged, type Known, conclude } from '../permit/known'
import { ANSWERS, type Ask, PURPOSES, type Purpose, permit } from '../permit/permit'
import { sayAnswer } from '../permit/say'
import { type Finding, RULE_NAMES, type RuleId } from '../rules/rule'
import { CareReport, Clearance, Closure, Restriction, ReturnStand } from '../vocabulary/care'
import { Dose, Parameters } from '../vocabulary/dose'
import { Day, TimeOfDay } from '../vocabulary/ids'
import { School } from '../vocabulary/school'
import { FAMILIES, type Family, type Level, PHASES, type Phase, SURFACES, type Surface } from '../vocabulary/words'
import { WrongValue } from '../vocabulary/wrong-value'
import { type Calculation, choice, fields, list, maybe, optional } from './calculation'

/** The same shape, with null wherever a field may be absent: null is unknown, like absent. */
function orNull<S extends TObject>(schema: S): TObject {
	const required = new Set((schema as unknown as { required?: string[] }).required ?? [])
	return fields(
		Object.fromEntries(
			Object.entries(schema.properties as Record<string, TSchema>).map(([name, one]) => [
				name,
				required.has(name) ? one : optional(maybe(one)),
			]),
		),
	)
}
/** Drops what is null, so that unknown has one spelling inside. */
function withoutNulls<T>(value: T): T {
	if (Array.isArray(value)) return value.map(withoutNulls) as T
	if (typeof value !== 'object' || value === null) return value
	return Object.fromEntries(
		Object.entries(value).flatMap(([name, one]) => (one === null ? [] : [[name, withoutNulls(one)]])),
	) as T
}

const RULES = Object.keys(RULE_NAMES) as RuleId[]
const Id = Type.String({ minLength: 1, maxLength: 60 })
const Reports = list(orNull(CareReport))
const Clearances = list(orNull(Clearance))
const Restrictions = list(orNull(Restriction))
const ClosuresOut = list(Closure)
const Ratio = Type.Number({ minimum: 0, maximum: 10_000 })

interface CareInput {
	reports: Known['reports']
	clearances: Known['clearances']
	restrictions?: Known['restrictions']
	sessions?: string[]
	day: string
}

/** A report says where, how much, or of which movement: without that it says nothing. */
function checkReports(reports: Known['reports']): void {
	for (const [index, one] of reports.entries()) {
		const missing =
			(one.kind === 'pain' || one.kind === 'soreness') && one.region === undefined
				? 'region'
				: one.kind === 'pain' && one.score === undefined && one.redFlag !== true
					? 'score'
					: one.kind === 'worry' && one.drillId === undefined
						? 'drillId'
						: null
		if (missing)
			throw new MeasureError(`reports[${index}].${missing}`, null, 'a value: this report says nothing without it')
	}
}

/** What is closed, spared and noted on a day, from everything that was said. */
export const CARE: Calculation<CareInput, { closures: Closure[] } & Record<string, unknown>> = {
	name: 'care',
	title: 'What is closed, spared and noted on a day, from reports and clearances',
	input: fields({
		reports: Reports,
		clearances: Clearances,
		restrictions: optional(maybe(Restrictions)),
		sessions: optional(maybe(list(Day))),
		day: Day,
	}),
	output: fields({ closures: ClosuresOut }),
	compute: (input) => {
		const { day, ...record } = withoutNulls(input)
		checkReports(record.reports)
		return { closures: closuresOn(record, day) }
	},
}

interface PermitInput extends CareInput {
	athlete: {
		ageYears?: number
		massKg?: number
		levels?: Partial<Record<Family, Level>>
		passed?: Record<string, string[]>
	}
	school: string | School
	schools?: (string | School)[]
	phase: Phase
	surface?: Surface
	hoursToMatch?: number
	hoursSinceMatch?: number
	lastWork?: Partial<Record<Family, string>>
	returnPlan?: ReturnStand | ReturnStand[]
	work?: { day: string; time?: string; drillId: string; parameters?: Parameters; dose: Dose }[]
	newRungs?: { day: string; ladderId: string; rungId: string }[]
	acknowledged?: Acknowledged[]
	guest?: boolean
	purpose?: Purpose
	ask: Ask
}

const schoolOf = (given: string | School, field: string): School => {
	if (typeof given !== 'string') return given
	const found = STARTER_LIBRARY.schools[given]
	if (!found) throw new MeasureError(field, given, `one of ${Object.keys(STARTER_LIBRARY.schools).join(', ')}`)
	return found
}
function rungKnown(ladderId: string, rungId: string, field: string): void {
	const ladder = STARTER_LIBRARY.ladders[ladderId]
	if (!ladder) throw new MeasureError(field, ladderId, `one of ${Object.keys(STARTER_LIBRARY.ladders).join(', ')}`)
	if (!ladder.rungs.some((rung) => rung.id === rungId))
		throw new MeasureError(field, rungId, `one of ${ladder.rungs.map((rung) => rung.id).join(', ')}`)
}

/** What is known, as the rulebook reads it. */
function knownOf(input: PermitInput): Known {
	const { athlete, day } = input
	checkReports(input.reports ?? [])
	for (const [ladderId, rungs] of Object.entries(athlete.passed ?? {}))
		for (const rungId of rungs) rungKnown(ladderId, rungId, `athlete.passed.${ladderId}`)
	for (const one of input.newRungs ?? []) rungKnown(one.ladderId, one.rungId, 'newRungs')
	for (const { drillId } of input.work ?? [])
		if (!STARTER_LIBRARY.drills[drillId]) throw new MeasureError('work.drillId', drillId, 'a drill of the library')
	const stands = input.returnPlan === undefined ? [] : [input.returnPlan].flat()
	for (const { path, step } of stands) rungKnown(path, step, 'returnPlan')
	const school = schoolOf(input.school, 'school')
	return {
		library: STARTER_LIBRARY,
		ageYears: athlete.ageYears ?? null,
		massKg: athlete.massKg ?? null,
		levelOf: (family) => athlete.levels?.[family] ?? 1,
		passed: athlete.passed ?? {},
		schools: [school, ...(input.schools ?? []).map((one) => schoolOf(one, 'schools'))],
		phase: input.phase,
		day,
		surface: input.surface ?? null,
		hoursToMatch: input.hoursToMatch ?? null,
		hoursSinceMatch: input.hoursSinceMatch ?? null,
		lastWork: input.lastWork ?? {},
		work: input.work?.map((one) => ({ ...one, parameters: parametersOf(one.drillId, one.parameters) })) ?? null,
		newRungs: input.newRungs ?? [],
		contrastHelps: false,
		reports: input.reports ?? [],
		clearances: input.clearances ?? [],
		restrictions: input.restrictions ?? [],
		sessions: input.sessions,
		stands,
		acknowledged: input.acknowledged ?? [],
	}
}
const parametersOf = (drillId: string, given: Parameters | undefined): Parameters => ({
	...STARTER_LIBRARY.drills[drillId]!.defaults.parameters,
	...given,
})

const SchoolGiven = Type.Union([Type.String({ description: 'id of a school of the library' }), School])
const Levels = fields(
	Object.fromEntries(FAMILIES.map((family) => [family, optional(maybe(Type.Integer({ minimum: 1, maximum: 3 })))])),
)
const LastWork = fields(Object.fromEntries(FAMILIES.map((family) => [family, optional(maybe(Day))])))

interface PermitOutput extends Record<string, unknown> {
	answer: (typeof ANSWERS)[number]
	line: { drillId: string; parameters: Parameters; dose: Dose } | null
	findings: Finding[]
	closures: Closure[]
	words: string
}

/** May this athlete do this, then? The same answer that the sheet, the builder, the phone and the review are given. */
export const PERMIT: Calculation<PermitInput, PermitOutput> = {
	name: 'permit',
	title: 'May this athlete do this drill at this dose on that day: yes, less, instead, no',
	input: fields({
		athlete: fields({
			ageYears: optional(maybe(Type.Number({ minimum: 0, maximum: 120 }))),
			massKg: optional(maybe(Type.Number({ minimum: 0, maximum: 400 }))),
			levels: optional(maybe(Levels)),
			passed: optional(
				maybe(Type.Unsafe<Record<string, string[]>>(Type.Object({}, { additionalProperties: list(Id) }))),
			),
		}),
		school: SchoolGiven,
		schools: optional(maybe(list(SchoolGiven))),
		phase: choice(PHASES),
		day: Day,
		surface: optional(maybe(choice(SURFACES))),
		hoursToMatch: optional(maybe(Ratio)),
		hoursSinceMatch: optional(maybe(Ratio)),
		reports: optional(maybe(Reports)),
		clearances: optional(maybe(Clearances)),
		restrictions: optional(maybe(Restrictions)),
		lastWork: optional(maybe(LastWork)),
		sessions: optional(maybe(list(Day))),
		returnPlan: optional(maybe(Type.Union([orNull(ReturnStand), list(orNull(ReturnStand))]))),
		work: optional(
			maybe(
				list(
					fields({
						day: Day,
						time: optional(maybe(TimeOfDay)),
						drillId: Id,
						parameters: optional(maybe(Parameters)),
						dose: Dose,
					}),
				),
			),
		),
		newRungs: optional(maybe(list(fields({ day: Day, ladderId: Id, rungId: Id })))),
		acknowledged: optional(
			maybe(
				list(fields({ rule: choice(RULES), reason: Type.String({ minLength: 1 }), by: Type.String({ minLength: 1 }) })),
			),
		),
		guest: optional(maybe(Type.Boolean())),
		purpose: optional(maybe(choice(PURPOSES))),
		ask: Type.Union([
			fields({ drillId: Id, parameters: optional(maybe(Parameters)), dose: optional(maybe(Dose)) }),
			fields({ ladderId: Id, rungId: optional(maybe(Id)), dose: optional(maybe(Dose)) }),
		]),
	}),
	output: fields({
		answer: choice(ANSWERS),
		line: maybe(fields({ drillId: Id, parameters: Parameters, dose: Dose })),
		findings: list(
			fields({
				rule: choice(RULES),
				tier: choice(['block', 'caution'] as const),
				firmness: choice(['published', 'common practice', 'our setting'] as const),
				found: Type.String(),
				limit: Type.String(),
			}),
		),
		closures: ClosuresOut,
		words: Type.String(),
	}),
	compute: (given) => {
		const input = withoutNulls(given)
		try {
			const concluded = conclude(knownOf(input))
			const answer = permit(concluded, input.ask, input.purpose)
			return {
				answer: answer.answer,
				line: answer.line,
				findings: answer.findings,
				closures: [...concluded.facts.closures],
				words: sayAnswer(answer, STARTER_LIBRARY),
			}
		} catch (error) {
			if (!(error instanceof WrongValue)) throw error
			throw new MeasureError(error.field, null, error.reason)
		}
	},
}

export const CARE_CALCULATIONS = [CARE, PERMIT]
