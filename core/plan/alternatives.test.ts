import { describe, expect, it } from 'vitest'
import {
	ADVANCED,
	BEGINNER,
	TRAINED,
	costOf,
	linesOf,
	plainAthlete,
	plainRequest,
} from '../../tests/support/plain-squad'
import { metresOf } from '../dose/dose-count'
import { STARTER_LIBRARY } from '../library/starter-library'
import { alternativesOf } from './alternatives'
import type { ProposeOptions } from './build-pack'
import { type Proposal, proposeSession } from './propose-session'

const options: ProposeOptions = {
	minutes: 90,
	mostLanes: 4,
	kit: new Set(['cones', 'box', '5 low hurdles', 'sled', 'step or kerb']),
	theme: 'turns',
}
const made = (minutes: number) => ({ minutes, entries: [], shortfalls: [] }) as Proposal
const ask = (change: Partial<ProposeOptions>, minutes = 73, surface: 'indoor' | 'grass' | null = null) =>
	alternativesOf({ ...options, ...change }, made(minutes), surface, STARTER_LIBRARY.themes)

describe('what else there is', () => {
	it('is less time, the next theme of the quality, a hall and no boxes', () => {
		const all = ask({})
		expect(all.map(({ label }) => label)).toEqual([
			'Shorter: 60 min',
			'Another: curves and reacting',
			'Indoors, 30 m',
			'Without boxes',
		])
		expect(
			all.map(({ options: one }) => [one.minutes, one.theme, one.surface, one.roomM, [...one.kit!].join()]),
		).toEqual([
			[60, 'turns', undefined, undefined, 'cones,box,5 low hurdles,sled,step or kerb'],
			[90, 'curves', undefined, undefined, 'cones,box,5 low hurdles,sled,step or kerb'],
			[90, 'turns', 'indoor', 30, 'cones,box,5 low hurdles,sled,step or kerb'],
			[90, 'turns', undefined, undefined, 'cones,sled'],
		])
	})
	it('is never under half an hour, nor what is so already', () => {
		expect(ask({}, 39.9).map(({ id }) => id)).not.toContain('shorter')
		expect(ask({}, 40).map(({ label }) => label)).toContain('Shorter: 30 min')
		expect(ask({ theme: null }).map(({ id }) => id)).not.toContain('another')
		// Throws have one theme.
		expect(ask({ theme: 'throws' }).map(({ id }) => id)).not.toContain('another')
		expect(ask({ kit: new Set(['cones', 'sled']) }).map(({ id }) => id)).not.toContain('without-boxes')
		expect(ask({ kit: null }).map(({ id }) => id)).not.toContain('without-boxes')
		expect(ask({ roomM: 30 }, 73, 'indoor').map(({ id }) => id)).not.toContain('indoors')
		expect(ask({}, 73, 'indoor').map(({ id }) => id)).toContain('indoors')
		// The last theme of a quality is followed by the first.
		expect(ask({ theme: 'curves' }).find(({ id }) => id === 'another')!.options.theme).toBe('turns')
	})
})

describe('a session in a hall of 30 m', () => {
	const squad = [plainAthlete('Ana', 2, TRAINED), plainAthlete('Bo', 1, BEGINNER), plainAthlete('Cy', 3, ADVANCED)]
	const asked = plainRequest(squad)
	const hall = proposeSession({
		...asked,
		target: { ...asked.target, theme: STARTER_LIBRARY.themes['top-speed']!, surface: 'indoor' },
		context: { ...asked.context, surface: 'indoor', roomM: 30 },
	})
	it('has no run that does not fit, and sprints over what does', () => {
		for (const athlete of squad)
			for (const { line, drill } of linesOf(hall, athlete)) {
				const { distanceM = 0, runInM = 0 } = line.parameters
				// 15 m behind a maximal run.
				if (drill.family === 'sprint' && drill.counting.metres?.plannedZone === 'maximal')
					expect(distanceM + runInM + 15, `${athlete.id} ${drill.id}`).toBeLessThanOrEqual(30)
			}
		// Level 2 asks for 180 m on a day about sprinting: a whole start more or less.
		const metres = metresOf(costOf(hall, squad[0]!), ['fast', 'maximal'])
		expect(metres >= 162 && metres <= 189, `${metres} m`).toBe(true)
	})
})
