import { describe, expect, it } from 'vitest'
import { isDay } from '../calendar/day-count'
import { isAmbiguous, orderOf, readDay } from './read-date'
import { sameName } from './plain-words'
import { type KnownPerson, guessColumns, readRoster } from './read-roster'

const TODAY = '2026-11-28'

describe('a day of the calendar', () => {
	it.each(['2026-11-28', '2024-02-29', '2000-02-29', '1900-02-28', '1999-12-31'])('%s is one', (text) =>
		expect(isDay(text)).toBe(true),
	)
	// 1900 was no leap year, 2000 was.
	it.each([
		'2026-02-29',
		'2026-02-31',
		'1900-02-29',
		'2026-13-01',
		'2026-00-10',
		'2026-04-31',
		'26-11-28',
		'',
		null,
		7,
	])('%s is none', (text) => expect(isDay(text)).toBe(false))
})

describe('a date as people write it', () => {
	it.each([
		['2009-05-31', '2009-05-31'],
		['2009/5/31', '2009-05-31'],
		['2009-05-31T00:00:00.000Z', '2009-05-31'],
		['2009-05-31 00:00:00', '2009-05-31'],
		['31.5.2009', '2009-05-31'],
		['31. 5. 2009', '2009-05-31'],
		['31/05/2009', '2009-05-31'],
		['31-05-09', '2009-05-31'],
		['31 May 2009', '2009-05-31'],
		['31st May 2009', '2009-05-31'],
		['1. Sept. 2009', '2009-09-01'],
		['May 31, 2009', '2009-05-31'],
		['december 1 2009', '2009-12-01'],
		// The day a spreadsheet keeps as 39964: 31 May 2009 (common practice, no source; from memory of a spreadsheet).
		['39964', '2009-05-31'],
		// 1 January 2000 is 36526 there.
		['36526', '2000-01-01'],
	])('%s is %s', (text, day) => expect(readDay(text, 'day-first', TODAY)).toBe(day))
	it.each([
		['05/31/2009', '2009-05-31'],
		['5/6/2009', '2009-05-06'],
	])('month first, %s is %s', (text, day) => expect(readDay(text, 'month-first', TODAY)).toBe(day))
	it('of two digits, a year is the latest that is not after today', () => {
		expect(readDay('1.2.26', 'day-first', TODAY)).toBe('2026-02-01')
		expect(readDay('1.2.27', 'day-first', TODAY)).toBe('1927-02-01')
		expect(readDay('1.2.00', 'day-first', TODAY)).toBe('2000-02-01')
	})
	it.each(['31/31/2009', '31.2.2009', '29 Feb 2009', 'May', '2009', '120', '31 Foo 2009', 'unknown', '1/2', '99999'])(
		'%s is none',
		(text) => expect(readDay(text, 'day-first', TODAY)).toBeNull(),
	)
	it('31 in front or in the middle says which comes first; both, or neither, says nothing', () => {
		expect(orderOf(['1/2/2009', '31/1/2009'])).toBe('day-first')
		expect(orderOf(['1/2/2009', '1/13/2009'])).toBe('month-first')
		expect(orderOf(['1/2/2009', '12/12/2009', '2009-05-31', ''])).toBeNull()
		expect(orderOf(['13/1/2009', '1/13/2009'])).toBeNull()
	})
	it('means another day in the other order only where both may be months and differ', () => {
		expect(isAmbiguous('1/2/2009')).toBe(true)
		expect(isAmbiguous('12/12/2009')).toBe(false)
		expect(isAmbiguous('13/1/2009')).toBe(false)
		expect(isAmbiguous('1 Feb 2009')).toBe(false)
	})
})

it('one name however it is typed', () => {
	expect(sameName('Ada  Sørli', 'ada sørli')).toBe(true)
	expect(sameName('Tomé Vaz', 'TOME VAZ')).toBe(true)
	expect(sameName('Ada Sørli', 'Ada Sorli')).toBe(true)
	expect(sameName('Żółw Groß', 'zolw gross')).toBe(true)
	expect(sameName("O'Dell, Jo", 'o dell jo')).toBe(true)
	expect(sameName('Ada Sørli', 'Ada Sorling')).toBe(false)
})

describe('what each column is', () => {
	it('by its heading, each field once', () =>
		expect(
			guessColumns(
				[
					['First name', 'Surname', 'Date of birth', 'Weight (kg)', 'Shirt', 'Parent phone', 'Group', 'Level', 'Phone'],
					['Ada', 'Sørli', '31.5.2009', '52', 'M', '0555 010 020', 'Sprint', '1', '0555 010 021'],
				],
				TODAY,
			),
		).toEqual({
			columns: ['first', 'last', 'born', 'mass', 'ignore', 'contact', 'squad', 'level', 'ignore'],
			hasHeading: true,
		}))
	it('without one, the first column is the name and the first of dates the birth date', () =>
		expect(
			guessColumns(
				[
					['Ada Sørli', '12', '31.5.2009', '1.1.2024'],
					['Tomé Vaz', '13'],
				],
				TODAY,
			),
		).toEqual({ columns: ['name', 'ignore', 'born', 'ignore'], hasHeading: false }))
	it('dates with the month first are dates', () =>
		expect(guessColumns([['Ada', '5/31/2009']], TODAY).columns).toEqual(['name', 'born']))
	it('of nothing is nothing', () => expect(guessColumns([], TODAY)).toEqual({ columns: [], hasHeading: false }))
})

const SQUADS = [
	{ id: 's1', name: 'Sprint' },
	{ id: 's2', name: 'Jumps' },
]
const read = (
	rows: string[][],
	columns: Parameters<typeof readRoster>[1]['columns'],
	known: KnownPerson[] = [],
	order: 'day-first' | 'month-first' = 'day-first',
) => readRoster(rows, { columns, order, today: TODAY, squads: SQUADS, squadId: 's1', known, firstLine: 2 })

describe('a list', () => {
	it('is read whole: everything a row may say', () => {
		const [row] = read(
			[['Ada', ' Sørli ', '31.5.2009', '52,4 kg', '86 cm', '2', 'jumps', 'Mother 0555 010 020', 'blue']],
			['first', 'last', 'born', 'mass', 'leg', 'level', 'squad', 'contact', 'ignore'],
		)
		expect(row).toEqual({
			line: 2,
			cells: ['Ada', ' Sørli ', '31.5.2009', '52,4 kg', '86 cm', '2', 'jumps', 'Mother 0555 010 020', 'blue'],
			person: {
				name: 'Ada Sørli',
				birthDate: '2009-05-31',
				massKg: 52.4,
				legLengthM: 0.86,
				level: 2,
				squadId: 's2',
				contact: 'Mother 0555 010 020',
			},
			problems: [],
			known: null,
			sameAs: null,
		})
	})
	it('leaves open what a row does not say', () =>
		expect(read([['Ada Sørli', '']], ['name', 'born'])[0]!.person).toEqual({
			name: 'Ada Sørli',
			birthDate: null,
			massKg: null,
			legLengthM: null,
			level: null,
			squadId: 's1',
			contact: null,
		}))
	it('names each bad cell with its column, and nobody is taken from such a row', () => {
		const [row] = read(
			[['', 'tomorrow', 'heavy', '86 km', '4', 'Rowing', 'call me']],
			['name', 'born', 'mass', 'leg', 'level', 'squad', 'contact'],
		)
		expect(row!.person).toBeNull()
		expect(row!.problems.map(({ column }) => column)).toEqual([0, 1, 2, 3, 4, 5, 6])
		expect(row!.problems[5]!.words).toBe('“Rowing”: one of Sprint, Jumps is expected.')
	})
	// 150 lb = 68.0388555 kg (1 lb = 0.45359237 kg, the international pound of 1959).
	it.each([
		['150 lb', 68],
		['150lbs', 68],
		['33.1 lb', 15],
		['15', 15],
		['250', 250],
	])('a mass of %s is %s kg', (text, kg) => expect(read([['Ada', text]], ['name', 'mass'])[0]!.person?.massKg).toBe(kg))
	it.each(['14.9', '250.1', '33 lb', '-60', 'kg'])('a mass of %s is none', (text) =>
		expect(read([['Ada', text]], ['name', 'mass'])[0]!.problems).toHaveLength(1),
	)
	it.each([
		['0.4', 0.4],
		['1,3 m', 1.3],
		['92', 0.92],
		['92 cm', 0.92],
		['3.1', null],
		['0.39', null],
		['1.31', null],
	])('a leg of %s is %s m', (text, metres) =>
		expect(read([['Ada', text]], ['name', 'leg'])[0]!.person?.legLengthM ?? null).toBe(metres),
	)
	it('a birth date lies before today, and nobody is over a hundred', () => {
		const born = (text: string) => read([['Ada', text]], ['name', 'born'])[0]!.person?.birthDate ?? null
		expect(born('2026-11-27')).toBe('2026-11-27')
		expect(born('2026-11-28')).toBeNull()
		expect(born('1926-11-29')).toBe('1926-11-29')
		expect(born('1926-11-27')).toBeNull()
	})
	it('a name may have 200 characters and no more', () => {
		expect(read([['a'.repeat(200)]], ['name'])[0]!.person).not.toBeNull()
		expect(read([['a'.repeat(201)]], ['name'])[0]!.person).toBeNull()
	})
	it('knows who is in the club: the same name, and no other birth date', () => {
		const known = [{ id: 'a1', name: 'Ada Sørli', birthDate: '2009-05-31', squadIds: ['s2'] }]
		const rows = [
			['ada sørli', '31.5.2009'],
			['Ada Sørli', ''],
			['Ada Sørli', '30.5.2009'],
		]
		expect(read(rows, ['name', 'born'], known).map((row) => row.known)).toEqual([
			{ id: 'a1', inSquad: false },
			{ id: 'a1', inSquad: false },
			null,
		])
		expect(read(rows, ['name', 'born'], [{ ...known[0]!, squadIds: ['s1'] }])[0]!.known?.inSquad).toBe(true)
	})
	it('finds who stands in it twice, by the line that was first', () =>
		expect(
			read(
				[
					['Ada Sørli', '31.5.2009'],
					['Tomé Vaz', ''],
					['ADA SØRLI', '2009-05-31'],
					['Ada Sørli', '2010-01-01'],
				],
				['name', 'born'],
			).map((row) => row.sameAs),
		).toEqual([null, null, 2, null]))
	it('reads month first where that was said', () =>
		expect(read([['Ada', '1/2/2009']], ['name', 'born'], [], 'month-first')[0]!.person?.birthDate).toBe('2009-01-02'))
})
