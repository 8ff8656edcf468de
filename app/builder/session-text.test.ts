import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { readDraft } from '../../server/sheet/draft'
import { readTemplate } from '../../server/plan/templates'
import {
	type SessionText,
	draftOf,
	entriesOfTemplate,
	freshEntry,
	pickOf,
	previewEntries,
	readSessionText,
	templateOf,
} from './session-text'

const library = STARTER_LIBRARY
const SQUAD = '0190a1b2-0000-7000-8000-000000000001'
const fresh = (pick: string) => {
	const found = pickOf({ pick }, library)!
	return freshEntry(found.drill, found.ladder, found.name)
}
const session = (change: Partial<SessionText> = {}): SessionText => ({
	squadId: SQUAD,
	day: '2026-03-12',
	startTime: '17:30',
	title: 'Tuesday',
	place: '',
	surface: '',
	plannedMinutes: '75',
	role: 'hard',
	share: 1,
	athleteIds: [SQUAD],
	entries: [fresh('drill:broad-jump'), fresh('ladder:acceleration'), fresh('drill:arc-half')],
	...change,
})

describe('a sheet as it is typed', () => {
	it('becomes a draft the server takes, whatever drill or ladder stands on it', () => {
		for (const drill of Object.keys(library.drills))
			expect(readDraft(draftOf(session({ entries: [fresh(`drill:${drill}`)] })), library), drill).toHaveProperty(
				'draft',
			)
		for (const ladder of Object.keys(library.ladders))
			expect(readDraft(draftOf(session({ entries: [fresh(`ladder:${ladder}`)] })), library), ladder).toHaveProperty(
				'draft',
			)
	})
	it('keeps what is no number as it was typed, so that it can be said', () => {
		const wrong = session({ entries: [{ ...fresh('drill:broad-jump'), sets: 'two', restS: '60,5' }] })
		const read = readDraft(draftOf(wrong), library)
		expect('problems' in read && read.problems['entries.0.sets']).toContain('“two”')
		expect('problems' in read && read.problems['entries.0.restS']).toContain('“60.5”')
		// What cannot be read yet is left out of the totals.
		expect(previewEntries(wrong.entries, library)).toEqual([])
	})
	it('arrives whole or not at all', () => {
		const sent = session()
		expect(readSessionText(JSON.stringify(sent))).toEqual(sent)
		for (const broken of [
			null,
			'x',
			'[]',
			'{}',
			JSON.stringify({ ...sent, entries: [{}] }),
			JSON.stringify({ ...sent, role: 'party' }),
			JSON.stringify({ ...sent, entries: [{ ...sent.entries[0], parameters: { distanceM: 5 } }] }),
		])
			expect(readSessionText(broken)).toBeNull()
	})
})

describe('a sheet as a template', () => {
	it('goes out as a valid document and comes back the same', () => {
		const tuning = {
			variants: { 1: { drillId: 'broad-jump', dose: { sets: 2, reps: 3 }, parameters: {}, restS: 60 } },
			fill: { quantity: 'contacts' as const, targets: { 1: 40, 2: 60, 3: 80 }, part: 1 },
			caps: { [SQUAD]: { reps: 3, why: 'a worry' } },
		}
		const sheet = session({ entries: [...session().entries, { ...fresh('drill:broad-jump'), tuning, lanes: 3 }] })
		const template = templateOf(sheet, library)!
		expect(readTemplate(JSON.parse(JSON.stringify(template)))).toEqual({ template })
		// Whom a cap is about stays in the club.
		expect(JSON.stringify(template)).not.toContain(SQUAD)
		const back = entriesOfTemplate(template, library)
		expect(back.unknown).toEqual([])
		const plain = (entries: typeof back.entries) =>
			previewEntries(entries, library).map(({ id: _id, tuning: own, ...rest }) => ({
				...rest,
				fill: own?.fill ?? null,
			}))
		expect(plain(back.entries)).toEqual(plain(sheet.entries))
	})
	it('is none while an entry cannot be read, and names what this club does not have', () => {
		expect(templateOf(session({ entries: [{ ...fresh('drill:broad-jump'), reps: '' }] }), library)).toBeNull()
		const template = templateOf(session(), library)!
		const {
			drills: { 'broad-jump': _gone, ...drills },
			...rest
		} = library
		const brought = entriesOfTemplate(template, { ...rest, drills })
		expect(brought.unknown).toEqual(expect.arrayContaining(['broad-jump']))
		expect(brought.entries.length).toBeLessThan(3)
	})
})
