import { describe, expect, it } from 'vitest'
import { TRAINED, plainAthlete, plainRequest } from '../../tests/support/plain-squad'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { AthleteType, Region } from '../vocabulary/words'
import { proposeSession } from './propose-session'
import { resolveSheet } from './resolve-sheet'
import { shareByType } from './athlete-type'

const { drills, themes } = STARTER_LIBRARY
const built = (type: AthleteType | null, ...regions: Region[]) => ({
	type,
	concluded: { facts: { closures: regions.map((region) => ({ region })) } },
})
const share = (drillId: string, of: ReturnType<typeof built>, slowWork: 'need' | 'everybody' = 'everybody') =>
	shareByType(drills[drillId]!, of as never, { choices: { slowWork } } as never)?.share ?? 1

describe('how somebody is built', () => {
	it('stiff and often hurt has two thirds of the springs, and all of the rest', () => {
		expect(share('pogo', built('stiff'))).toBeCloseTo(2 / 3, 9)
		expect(share('depth-jump', built('stiff'))).toBeCloseTo(2 / 3, 9)
		for (const id of ['broad-jump', 'standing-start', 'slow-calf-raise', 'overhead-throw'])
			expect(share(id, built('stiff')), id).toBe(1)
	})
	it('strong and slow has half the slow work', () => {
		expect(share('slow-calf-raise', built('slow'))).toBe(0.5)
		for (const id of ['pogo', 'broad-jump', 'standing-start']) expect(share(id, built('slow')), id).toBe(1)
	})
	it('neither has all of it', () => {
		for (const id of ['pogo', 'slow-calf-raise']) expect(share(id, built(null)), id).toBe(1)
	})
	it('slow work is for all, or for who needs it: the stiff, and who has something at a tendon', () => {
		const need = (of: ReturnType<typeof built>) => share('slow-calf-raise', of, 'need')
		expect(need(built(null))).toBe(0)
		expect(need(built('slow'))).toBe(0)
		expect(need(built('stiff'))).toBe(1)
		expect(need(built(null, 'calf'))).toBe(1)
		expect(need(built('slow', 'knee'))).toBe(0.5)
		expect(need(built(null, 'shoulder'))).toBe(0)
		expect(share('pogo', built(null), 'need')).toBe(1)
	})
})

describe('a proposal', () => {
	const line = (
		type: AthleteType | null,
		theme: string,
		ladderId: string,
		slowWork: 'need' | 'everybody' = 'everybody',
	) => {
		const athlete = { ...plainAthlete('Ana', 2, TRAINED), type }
		const asked = plainRequest([athlete], { minutes: 120 })
		const { school } = asked.context
		const { entries } = proposeSession({
			...asked,
			target: { ...asked.target, role: themes[theme]!.role, theme: themes[theme]! },
			context: { ...asked.context, school: { ...school, choices: { ...school.choices, slowWork } } },
		})
		const entry = entries.find((one) =>
			ladderId === 'pogos' ? one.part === 'Springs' && one.tuning?.fill : one.ladderId === ladderId,
		)
		const own = entry && resolveSheet(entries, athlete, STARTER_LIBRARY).get(entry.id)!
		return own ? (own.blocked ?? own.dose.sets * own.dose.reps) : 'no entry'
	}
	it('takes springs away from who is stiff, and says it without a word of health', () => {
		const whole = line(null, 'stiffness', 'pogos') as number
		expect(line('stiff', 'stiffness', 'pogos')).toBe(Math.floor((whole * 2) / 3))
		expect(line('slow', 'stiffness', 'pogos')).toBe(whole)
		// The hold that the ladder of springs begins with is part of it.
		expect(line(null, 'stiffness', 'stiffness', 'need')).toBe(line(null, 'stiffness', 'stiffness'))
		expect(shareByType(drills.pogo!, built('stiff') as never, { choices: { slowWork: 'need' } } as never)!.why).toBe(
			'fewer springs, by athlete type',
		)
	})
	it('has no tendon work for who does not need it, where the school says so', () => {
		expect(line(null, 'tendon', 'tissue')).toBeGreaterThan(0)
		expect(line(null, 'tendon', 'tissue', 'need')).toBe('no entry')
		expect(line('stiff', 'tendon', 'tissue', 'need')).toBeGreaterThan(0)
	})
})
