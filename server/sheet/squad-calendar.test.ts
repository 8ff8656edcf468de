import ICAL from 'ical.js'
import { beforeAll, describe, expect, it } from 'vitest'
import { NOW, freshDatabase, makeClub } from '../../tests/support/test-club'
import { instantOf } from '../../core/calendar/days'
import { createSession } from './save-session'
import { squadCalendar } from './squad-calendar'
import { draftEntry } from '../../tests/support/draft-entry'

beforeAll(freshDatabase)

describe('a squad’s calendar file', () => {
	it('is read back by another program’s parser: every session, at its instant, with nothing about anybody', async () => {
		const club = await makeClub('Club, with; odd \\ name')
		const make = async (day: string, startTime: string, title: string) =>
			createSession(
				club.coach.clubId,
				'Atlantic/Madeira',
				{
					squadId: club.squadId,
					day,
					startTime,
					title,
					place: 'Lower field, by the sea; grass',
					surface: null,
					plannedMinutes: 75,
					role: 'hard',
					share: 1,
					athleteIds: club.athletes,
					entries: [
						draftEntry({
							part: 'Starts',
							drillId: 'three-point-start',
							sets: 1,
							reps: 6,
							rest: 120,
							parameters: { distanceM: 20 },
						}),
					],
				},
				NOW,
			)
		// One on each side of the night the clocks go forward.
		await make('2026-03-26', '17:30', 'Starts')
		await make(
			'2026-03-30',
			'17:30',
			'Turns, and a very long title that has to be folded because a line of the format may hold only seventy-five octets',
		)
		const calendar = await squadCalendar(club.scope, club.squadId, '2026-03-12', 'Club', NOW)
		const parsed = new ICAL.Component(ICAL.parse(calendar!.text) as unknown as string)
		const events = parsed.getAllSubcomponents('vevent').map((component) => new ICAL.Event(component))
		expect(events.map((event) => event.startDate.toJSDate().toISOString())).toEqual([
			'2026-03-26T17:30:00.000Z',
			'2026-03-30T16:30:00.000Z',
		])
		expect(
			events.map((event) => (event.endDate.toJSDate().getTime() - event.startDate.toJSDate().getTime()) / 60_000),
		).toEqual([75, 75])
		expect(events[1]!.summary).toContain('only seventy-five octets')
		expect(events[0]!.location).toBe('Lower field, by the sea; grass')
		expect(new Set(events.map((event) => event.uid)).size).toBe(2)
		expect(calendar!.text).not.toContain('Athlete')
		for (const line of calendar!.text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
	})
	it('is nobody’s of another club', async () => {
		const [one, two] = [await makeClub('One'), await makeClub('Two')]
		expect(await squadCalendar(one.scope, two.squadId, '2026-03-12', 'One', NOW)).toBeNull()
	})
	it('knows local time from instants, summer and winter', () => {
		expect(instantOf('2026-07-01', '17:30', 'Atlantic/Madeira').toISOString()).toBe('2026-07-01T16:30:00.000Z')
		expect(instantOf('2026-01-05', '06:00', 'Pacific/Auckland').toISOString()).toBe('2026-01-04T17:00:00.000Z')
	})
})
