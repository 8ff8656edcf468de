import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fromRows, kindOfHeading, toRows, columnsOf } from './tables'
import type { OpenKind, OpenRecords } from './document'

const ID = '019aa0b2-7c3e-7d11-8f00-0123456789ab'
const OTHER = '019aa0b2-7c3e-7d11-8f00-0123456789ac'

const squad: OpenRecords['squads'][number] = {
	id: ID,
	name: 'Open squad',
	trainingDays: [1, 4],
	startTime: '17:30',
	place: '',
	phase: 'peaking',
	schoolId: 'quality-first',
	schoolVersion: 2,
}
const athlete: OpenRecords['athletes'][number] = {
	id: ID,
	name: 'Ada',
	born: '2009-05-31',
	legLengthM: 0.92,
	massKg: null,
	type: null,
	levels: { sprint: 2, throw: 1 },
	squadIds: [ID, OTHER],
	contact: null,
}
const cells = (kind: OpenKind, record: object): Record<string, string> => {
	const [row = []] = toRows(kind, [record] as never)
	return Object.fromEntries(columnsOf(kind).map((name, index) => [name, row[index]!]))
}
const back = (kind: OpenKind, rows: string[][]) => fromRows(kind, columnsOf(kind), rows)

describe('cells of a table', () => {
	it('say what there is, and are empty for what is not', () => {
		expect(cells('athletes', athlete)).toMatchObject({
			name: 'Ada',
			born: '2009-05-31',
			leg_length_m: '0.92',
			mass_kg: '',
			level_sprint: '2',
			level_agility: '',
			squad_ids: `${ID} ${OTHER}`,
		})
		expect(cells('squads', squad)).toMatchObject({ training_days: '1 4', place: '' })
	})
	it('hold times as distance and time, one beside the other', () => {
		const mark = {
			type: 'mark',
			kind: 'sprint',
			value: {
				splits: [
					{ distanceM: 5, timeS: 1.1 },
					{ distanceM: 9.14, timeS: 1.7 },
				],
				method: 'gate',
				windMps: -1.2,
			},
		}
		expect(cells('marks', mark)).toMatchObject({ splits: '5=1.1 9.14=1.7', wind_mps: '-1.2', method: 'gate', reps: '' })
	})
	it('keep a text that a spreadsheet would run as a formula behind an apostrophe', () => {
		for (const [text, cell] of [
			['=2+2', "'=2+2"],
			['+44 555', "'+44 555"],
			['-', "'-"],
			['@home', "'@home"],
			["'=x", "''=x"],
			["'t Hoog", "'t Hoog"],
			['a=b', 'a=b'],
		] as const) {
			expect(cells('squads', { ...squad, name: text }).name, text).toBe(cell)
			expect(back('squads', toRows('squads', [{ ...squad, name: text }])).records, text).toEqual([
				{ ...squad, name: text },
			])
		}
	})
	it('that cannot be read are named by row and column', () => {
		const row = (name: string, cell: string) =>
			columnsOf('athletes').map((one) => (one === name ? cell : cells('athletes', athlete)[one]!))
		for (const [name, cell] of [
			['leg_length_m', '0,92'],
			['leg_length_m', '0.92 m'],
			['leg_length_m', 'NaN'],
			['level_sprint', 'two'],
		] as const)
			expect(back('athletes', [row('name', 'Bo'), row(name, cell)]).problems, cell).toEqual([
				{ row: 1, column: name, words: `“${cell}” cannot be read.` },
			])
		expect(fromRows('squads', ['id', 'training_days'], [[ID, '1 x']]).problems).toContainEqual({
			row: 0,
			column: 'training_days',
			words: '“1 x” cannot be read.',
		})
	})
	it('stand in any order of columns; one too many and one too few are said of the heading', () => {
		const heading = [...columnsOf('squads')].reverse()
		const [row = []] = toRows('squads', [squad])
		expect(fromRows('squads', heading, [[...row].reverse()])).toEqual({ records: [squad], problems: [] })
		expect(fromRows('squads', [...heading, 'colour'], []).problems).toEqual([
			{ row: -1, column: 'colour', words: '“colour” is no column of squads.' },
		])
		expect(fromRows('squads', heading.slice(1), []).problems).toEqual([
			{ row: -1, column: 'school_version', words: 'The column “school_version” is not there.' },
		])
	})
	it('tell by their heading which table they are; what may be empty may be left out', () => {
		expect(kindOfHeading(columnsOf('lines'))).toBe('lines')
		expect(kindOfHeading(['id', 'name', 'squad_ids'])).toBe('athletes')
		expect(kindOfHeading(['id', 'name'])).toBeNull()
		expect(kindOfHeading(['id', 'name', 'squad_ids', 'colour'])).toBeNull()
		expect(fromRows('athletes', ['id', 'name', 'squad_ids'], [[ID, 'Bo', '']]).records).toEqual([
			{ ...athlete, name: 'Bo', born: null, legLengthM: null, levels: {}, squadIds: [] },
		])
	})
})

describe('records as a table and back', () => {
	const text = fc.oneof(
		fc.string({ minLength: 1 }),
		fc.constantFrom('=1', "''=1", "'", '-3', 'a\r\nb', '1;2', '"', '  x ', 'null', '0'),
	)
	const id = fc.uuid()
	const number = fc.double({ noNaN: true, noDefaultInfinity: true }).map((one) => (Object.is(one, -0) ? 0 : one))
	const orNull = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null })
	const whole = fc.integer({ min: 1, max: 100 })
	const work = {
		dose: fc.record({ sets: whole, reps: whole }),
		rest: fc.record({ repsS: whole, setsS: whole }),
		parameters: fc.dictionary(fc.constantFrom('distanceM', 'heightCm'), number),
	}
	const workToo = { carried: fc.record({ segment: text, grams: number }), pieces: fc.array(fc.record(work)) }
	const kinds: { [K in OpenKind]: fc.Arbitrary<object> } = {
		squads: fc.record({
			id,
			name: text,
			trainingDays: fc.array(whole),
			startTime: text,
			place: fc.string(),
			phase: text,
			schoolId: text,
			schoolVersion: whole,
		}),
		athletes: fc.record({
			id,
			name: text,
			born: orNull(text),
			legLengthM: orNull(number),
			massKg: orNull(number),
			type: orNull(text),
			levels: fc.dictionary(fc.constantFrom('sprint', 'throw', 'tissue'), whole),
			squadIds: fc.array(id),
			contact: orNull(text),
		}),
		sessions: fc.record({
			id,
			squadId: id,
			day: text,
			startTime: text,
			timeZone: text,
			title: text,
			place: fc.string(),
			surface: orNull(text),
			phase: text,
			plannedMinutes: whole,
			role: text,
			theme: orNull(text),
			share: number,
			begunAt: orNull(text),
			closedAt: orNull(text),
			athleteIds: fc.array(id),
		}),
		entries: fc.record(
			{
				id,
				sessionId: id,
				position: whole,
				part: text,
				family: text,
				drillId: text,
				drillVersion: whole,
				ladderId: orNull(text),
				...work,
				...workToo,
				doseFactor: number,
				lanes: whole,
				together: whole,
				tuning: orNull(fc.record({ fill: text })),
				off: fc.boolean(),
			},
			{
				requiredKeys: [
					'id',
					'sessionId',
					'position',
					'part',
					'family',
					'drillId',
					'drillVersion',
					'ladderId',
					'dose',
					'rest',
					'parameters',
					'doseFactor',
					'lanes',
					'together',
					'tuning',
					'off',
				],
			},
		),
		lines: fc.record({
			id,
			sessionId: id,
			entryId: id,
			athleteId: id,
			version: whole,
			current: fc.boolean(),
			handSet: fc.boolean(),
			blocked: orNull(text),
			drillId: orNull(text),
			drillVersion: orNull(whole),
			ladderId: orNull(text),
			rungId: orNull(text),
			...work,
			change: orNull(fc.record({ from: text, why: text })),
			wouldBe: orNull(text),
			writtenAt: text,
		}),
		tests: fc.record({
			id,
			squadId: id,
			name: text,
			every: text,
			items: fc.array(fc.record({ drillId: text, restS: whole })),
			sessionIds: fc.array(id),
			off: fc.boolean(),
		}),
		marks: fc
			.record({
				id,
				sessionId: id,
				athleteId: id,
				entryId: id,
				lineId: id,
				setNo: whole,
				repNo: whole,
				kind: text,
				deviceId: id,
				deviceSeq: whole,
				deviceTime: text,
				value: fc.oneof(
					fc.record({ contactS: number, flightS: number, method: text }),
					fc.record({ heightM: number, method: text }),
					fc.record({ distanceM: number, method: text }),
					fc.record({ speedMps: number, method: text }),
					fc.record({ reps: whole }),
					fc.record({ reason: text }),
					fc.constant({}),
					fc.record({
						splits: fc.array(fc.record({ distanceM: number, timeS: number }), { minLength: 1 }),
						method: text,
						windMps: number,
					}),
				),
			})
			.map((one) => ({ type: 'mark', ...one })),
	}
	for (const [kind, records] of Object.entries(kinds) as [OpenKind, fc.Arbitrary<object>][])
		it(`are the very same: ${kind}`, () => {
			fc.assert(
				fc.property(fc.array(records, { maxLength: 4 }), (made) => {
					const read = back(kind, toRows(kind, made as never))
					expect(read.problems).toEqual([])
					expect(read.records).toEqual(JSON.parse(JSON.stringify(made)))
				}),
				{ seed: 20261129, numRuns: 150 },
			)
		})
})
