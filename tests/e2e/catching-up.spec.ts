import { randomUUID } from 'node:crypto'
import { readLines } from '../../db/queries/sessions'
import { coachOf } from '../support/coach-of'
import { draftEntry } from '../support/draft-entry'
import { planSession } from '../support/plan-session'
import { expect } from '@playwright/test'
import { test } from '../support/app-test'

test.use({ serviceWorkers: 'allow' })

test('a page at the desk says that marks have just come in, and shows them by itself', async ({ app, page }) => {
	const club = await coachOf(page, app, 2)
	const today = new Date().toISOString().slice(0, 10)
	const id = await planSession(club, today, [
		draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 3, reps: 10, rest: 60 }),
	])
	const lines = (await readLines(club.scope, [id])).filter(({ blocked }) => blocked === null)
	const log = async (said: object) => {
		const event = {
			id: randomUUID(),
			sessionId: id,
			deviceId: randomUUID(),
			deviceSeq: 0,
			deviceTime: new Date().toISOString(),
			...said,
		}
		const answer = await page.request.post('/api/events', {
			headers: { origin: app.address },
			data: { events: [event] },
		})
		expect(await answer.json()).toEqual({ answers: [{ id: event.id, outcome: 'accepted' }] })
	}
	const send = ({ athleteId, entryId, id: lineId }: (typeof lines)[number], setNo: number) =>
		log({ athleteId, entryId, lineId, setNo, repNo: 1, type: 'mark', kind: 'done', value: { reps: 10 } })
	const sentence = page.getByText('Marks have just come in')
	await send(lines[0]!, 1)
	await page.goto(`/sessions/${id}/review`)
	await expect(page.getByText('1 of 2 came')).toBeVisible()
	await expect(sentence).toHaveCount(0)

	await send(lines[1]!, 1)
	await page.reload()
	await expect(sentence).toBeVisible()
	await expect(page.getByText('1 of 2 came')).toBeVisible()
	// Nobody presses anything.
	await expect(page.getByText('2 of 2 came')).toBeVisible()
	await expect(sentence).toHaveCount(0)

	// What is said of a body is waited for.
	await send(lines[0]!, 2)
	const said = { region: 'knee', side: 'left', score: 6, moment: 'during', redFlag: false }
	await log({ athleteId: lines[0]!.athleteId, type: 'observation', kind: 'pain', value: said })
	await page.reload()
	await expect(page.getByText('2 of 2 came')).toBeVisible()
	await expect(page.getByText(/knee/i).first()).toBeVisible()
	await expect(sentence).toHaveCount(0)
})
