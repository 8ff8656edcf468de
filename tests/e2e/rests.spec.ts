import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { startingAt } from '../../core/judge/resolve-line'
import { writeLevel, writeState } from '../../db/queries/squads'
import { FieldHand } from '../support/field-hand'
import { printed } from '../support/printed'
import { makeSecondClub } from '../support/second-club'
import { addToSheet } from '../support/sheet-form'
import { signIn } from '../support/sign-in'

test.use({ serviceWorkers: 'allow' })

test.use({ filledWith: 'empty' })

test('rests between reps and between sets are planned, flowed, printed and waited alike', async ({ app, page }) => {
	const club = await makeSecondClub()
	const [first] = club.athletes
	for (const family of ['sprint', 'plyometric'] as const) await writeLevel(club.scope, first!, family, 3)
	// What must come before long repeats and depth jumps.
	for (const [ladder, rung] of [
		['cut', 'sharp-wide'],
		['shock', 'depth-45'],
	] as const)
		await writeState(club.scope, first!, startingAt(STARTER_LIBRARY, ladder, rung), '2026-01-01', new Date())
	await signIn(page, app, club.email)
	await page.goto('/sessions/new')
	await page.getByLabel('Title').fill('Two rests')
	await page.getByText('Who comes', { exact: true }).click()
	for (const n of [2, 3, 4, 5, 6]) await page.getByRole('checkbox', { name: `Athlete ${n}` }).uncheck()
	for (const words of ['repeat long run', 'depth jump']) await addToSheet(page, words)
	// 2 sets of 3×150 m, 2 and 10 min; depth jumps 5×2, 8 s and 2:30: what the library says, and typed over once.
	await expect(page.getByLabel('Rest after a rep, entry 1')).toHaveValue('2:00')
	await expect(page.getByLabel('Rest after a set, entry 1')).toHaveValue('10:00')
	await expect(page.getByLabel('Rest after a rep, entry 2')).toHaveValue('0:08')
	await page.getByLabel('Rest after a set, entry 2').fill('2:3')
	await page.getByRole('button', { name: 'Save the session' }).click()
	await expect(page.getByText('“2:3”: Rest between sets in whole seconds from 0 to 1800 is expected.')).toBeVisible()
	await expect(page.getByLabel('Rest after a set, entry 2')).toHaveValue('2:3')
	await page.getByLabel('Rest after a set, entry 2').fill('150')
	await page.getByRole('button', { name: 'Save the session' }).click()

	await expect(page.getByRole('heading', { level: 1 })).toHaveText('Squad, two rests')
	await page.getByText('Athlete 1', { exact: true }).first().click()
	await expect(page.getByText('rest 2:00, 10:00 between sets').first()).toBeVisible()
	await expect(page.getByText('rest 0:08, 2:30 between sets').first()).toBeVisible()
	const sheet = page.url()

	// Alone: 1,236 s of runs (six of 26 s, four rests of 120 s, one of 600 s), 720 s of jumps (ten of 8 s, five
	// rests of 8 s, four of 150 s), 1.5 min before each: 35.6 min.
	await page.goto(`${sheet}/flow`)
	await expect(page.getByRole('heading', { level: 1 })).toHaveText('36 of 75 minutes')

	await page.goto(`${sheet}/card`)
	const { text } = await printed(page, 'A4')
	expect(text).toMatch(/2×3, rest 2:00, 10:00 between sets/)
	expect(text).toMatch(/5×2, rest 0:08, 2:30 between sets/)

	await page.setViewportSize({ width: 390, height: 844 })
	await page.goto(sheet)
	await page.getByRole('link', { name: 'Go to the field' }).click()
	const hand = new FieldHand(page, app)
	const rests = async () => {
		await page.getByRole('button', { name: 'Queue' }).click()
		const row = await page.getByRole('dialog', { name: 'Queue' }).getByRole('listitem').textContent()
		await page.keyboard.press('Escape')
		const [, minutes, seconds] = /· (\d+):(\d\d) ·/.exec(row ?? '') ?? []
		return minutes === undefined ? 0 : Number(minutes) * 60 + Number(seconds)
	}
	const waited = async (most: number) => {
		const left = await rests()
		expect(left).toBeGreaterThan(most - 25)
		expect(left).toBeLessThanOrEqual(most)
	}
	await hand.goTo('Repeat long run')
	const done = () => hand.press('Done, no number')
	await done()
	await waited(120)
	await done()
	await expect(page.getByText('set 1 of 2, rep 3')).toBeVisible()
	await done()
	await expect(page.getByText('set 2 of 2, rep 1')).toBeVisible()
	await waited(600)
	await hand.goTo('Depth jump')
	await expect(hand.onTheLine()).toHaveText('Athlete 1')
	await hand.allSafe()
})
