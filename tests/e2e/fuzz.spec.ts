import { randomUUID } from 'node:crypto'
import { expect } from '@playwright/test'
import { test } from '../support/app-test'
import { EVENT_SCHEMAS, type EventAnswer } from '../../core/vocabulary/events'
import { READING_SCHEMAS } from '../../core/devices/schema'
import { Random } from '../../core/chance/random'
import { readLines } from '../../db/queries/sessions'
import { makePairingCode, pairDevice } from '../../server/devices/pair'
import { makeSecondClub } from '../support/second-club'

const BODIES = Number(process.env.FUZZ_BODIES ?? 3000)
const AT_ONCE = 8
const SEED = 20261126

type Json = unknown
const NASTY: Json[] = [
	null,
	true,
	'',
	' ',
	'\u0000',
	'𝒳\ud800',
	'DROP TABLE mark',
	'../../x',
	-1,
	0,
	1e9,
	1e308,
	-0.5,
	1.5,
	[],
	{},
	[[]],
	{ a: 1 },
	'2026-13-45',
	'0000-01-01T00:00:00Z',
	'9999-12-31T23:59:59Z',
	'NaN',
	'1'.repeat(3000),
	randomUUID().toUpperCase(),
	`urn:uuid:${randomUUID()}`,
]

interface Schema {
	type?: string
	enum?: Json[]
	const?: Json
	properties?: Record<string, Schema>
	required?: string[]
	items?: Schema
	pattern?: string
	format?: string
	minimum?: number
	maximum?: number
	exclusiveMinimum?: number
	exclusiveMaximum?: number
	multipleOf?: number
	minItems?: number
	maxItems?: number
}

/** A value that fits a schema, so that what is then spoilt is nearly right. */
function fitting(schema: Schema, random: Random): Json {
	const between = (low: number, high: number) => low + random.next() * (high - low)
	if (schema.const !== undefined) return schema.const
	if (schema.enum) return schema.enum[Math.floor(random.next() * schema.enum.length)]
	if (schema.type === 'object')
		return Object.fromEntries(
			Object.entries(schema.properties ?? {})
				.filter(([key]) => schema.required?.includes(key) || random.chance(0.5))
				.map(([key, inner]) => [key, fitting(inner, random)]),
		)
	if (schema.type === 'array')
		return Array.from({ length: Math.round(between(schema.minItems ?? 0, Math.min(schema.maxItems ?? 3, 4))) }, () =>
			fitting(schema.items ?? {}, random),
		)
	if (schema.type === 'boolean') return random.chance(0.5)
	if (schema.type === 'null') return null
	if (schema.type === 'integer') return Math.round(between(schema.minimum ?? 0, Math.min(schema.maximum ?? 100, 200)))
	if (schema.type === 'number')
		return Number(
			between(
				schema.minimum ?? schema.exclusiveMinimum ?? 0,
				Math.min(schema.maximum ?? schema.exclusiveMaximum ?? 10, 20),
			).toFixed(schema.multipleOf === 0.1 ? 1 : 2),
		)
	if (schema.format === 'date-time')
		return new Date(Date.UTC(2026, 2, 12, 18, 0, Math.floor(random.next() * 3000))).toISOString()
	if (schema.pattern?.includes('[0-9a-f]{8}')) return random.uuid()
	return schema.pattern ? 'a-drill' : 'words'
}

/** One place in a value exchanged for something nasty, left out, or added to. */
function spoil(value: Json, random: Random): Json {
	if (typeof value !== 'object' || value === null || random.chance(0.15))
		return NASTY[Math.floor(random.next() * NASTY.length)]
	if (Array.isArray(value))
		return value.length === 0
			? [NASTY[Math.floor(random.next() * NASTY.length)]]
			: value.map((item, index) =>
					index === Math.floor(random.next() * value.length) ? spoil(item, random) : (item as Json),
				)
	const keys = Object.keys(value)
	const key = keys[Math.floor(random.next() * keys.length)] ?? 'x'
	if (random.chance(0.15)) return Object.fromEntries(Object.entries(value).filter(([name]) => name !== key))
	if (random.chance(0.1)) return { ...value, [`extra-${key}`]: 1, ['__proto__x']: {} }
	return { ...value, [key]: spoil((value as Record<string, Json>)[key], random) }
}

test.use({ filledWith: 'empty' })

test(`${BODIES} bodies of garbage, near misses and good events: no 500, no half event, a reason for every refusal`, async ({
	app,
}) => {
	test.setTimeout(240_000)
	const random = new Random(SEED)
	const pick = <T>(of: readonly T[]): T => of[Math.floor(random.next() * of.length)]!
	const club = await makeSecondClub()
	const lines = await readLines(club.scope, [club.firstSessionId])
	const paired = await pairDevice(
		(await makePairingCode(club.scope, new Date())).code,
		'gates',
		'fuzz',
		'127.0.0.1',
		new Date(),
	)
	if (!('token' in paired)) throw new Error(paired.problem)
	// Plain fetch: ten thousand bodies in a trace would take longer than sending them.
	const signedIn = await fetch(`${app.address}/sign-in`, {
		method: 'POST',
		redirect: 'manual',
		headers: { origin: app.address, 'content-type': 'application/x-www-form-urlencoded' },
		body: new URLSearchParams({ email: club.email, password: club.password }),
	})
	const cookie = signedIn.headers.get('set-cookie')!.split(';')[0]!

	const event = (): Json => {
		const line = pick(lines)
		const fit = fitting(pick(Object.values(EVENT_SCHEMAS)) as Schema, random) as Record<string, Json>
		const placed = {
			...fit,
			sessionId: club.firstSessionId,
			...(fit.athleteId === null ? {} : { athleteId: line.athleteId }),
			...('entryId' in fit || 'lineId' in fit ? { entryId: line.entryId, lineId: line.id } : {}),
		}
		return random.chance(0.65) ? spoil(placed, random) : placed
	}
	const reading = (): Json => {
		const fit = {
			...(fitting(READING_SCHEMAS.beam as Schema, random) as object),
			time: new Date(Date.now() - random.next() * 60_000).toISOString(),
		}
		return random.chance(0.65) ? spoil(fit, random) : fit
	}
	const raw = () =>
		pick([
			'',
			'{',
			'[]',
			'null',
			'"x"',
			'{"events":{}}',
			'{"events":[1,2',
			'\u0000',
			'[[[[',
			'{"events":null}',
			'{"readings":[]}',
			`{"events":"${'a'.repeat(2000)}"}`,
			'{"events":[{}],"events":[]}',
		])
	const statuses = new Map<number, number>()
	const problems: string[] = []
	let [acceptedMarks, refusals] = [0, 0]
	const one = async (index: number) => {
		const device = index % 4 === 3
		const some = <T>(make: () => T) => Array.from({ length: 1 + Math.floor(random.next() * 4) }, make)
		const garbage = random.chance(0.08)
		const body = garbage
			? raw()
			: device
				? JSON.stringify(
						random.chance(0.1)
							? spoil({ sentAt: new Date().toISOString(), readings: some(reading) }, random)
							: { sentAt: new Date().toISOString(), readings: some(reading) },
					)
				: JSON.stringify({ events: some(event) })
		const sent = garbage ? null : (JSON.parse(body) as { events?: Json[]; readings?: Json[] })
		const response = await fetch(`${app.address}/api/${device ? 'devices/readings' : 'events'}`, {
			method: 'POST',
			body,
			headers: {
				'content-type': 'application/json',
				...(device ? { authorization: `Bearer ${paired.token}` } : { cookie, origin: app.address }),
			},
		})
		statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1)
		const text = await response.text()
		const answer = (text.startsWith('{') ? JSON.parse(text) : { error: '' }) as {
			answers?: EventAnswer[]
			error?: string
		}
		const wrong = (what: string) =>
			problems.push(`${what}: ${body.slice(0, 300)} → ${response.status} ${JSON.stringify(answer).slice(0, 300)}`)
		if (response.status >= 500) return wrong('a server error')
		if (!response.ok) return (answer.error?.length ?? 0) > 5 ? 0 : wrong('no reason')
		const asked = device ? sent?.readings : sent?.events
		if (asked && answer.answers?.length !== asked.length) wrong('not an answer for each')
		for (const [at, said] of (answer.answers ?? []).entries()) {
			if (!['accepted', 'replayed', 'refused'].includes(said.outcome)) wrong('an unknown outcome')
			if (said.outcome === 'refused') {
				refusals += 1
				if (said.reason.length < 4) wrong('a refusal without a reason')
			} else if (!device && said.outcome === 'accepted' && (asked?.[at] as { type?: string }).type === 'mark')
				acceptedMarks += 1
		}
		return 0
	}
	// What was accepted is in the log, or waits outside it for the event it corrects.
	const count = async () =>
		Number(
			(
				await app.rows(
					`select (select count(*) from mark where session_id = ?)
					+ (select count(*) from held_correction where session_id = ? and refused is null and json_value(event, '$.type') = 'mark') as n`,
					[club.firstSessionId, club.firstSessionId],
				)
			)[0]!.n,
		)
	const marksBefore = await count()
	let next = 0
	await Promise.all(
		Array.from({ length: AT_ONCE }, async () => {
			while (next < BODIES) await one(next++)
		}),
	)
	expect(problems).toEqual([])
	expect(await count()).toBe(marksBefore + acceptedMarks)
	// It looked at both sides: much was refused, and good events in the same bodies were taken.
	expect(refusals).toBeGreaterThan(BODIES / 4)
	expect(acceptedMarks).toBeGreaterThan(BODIES / 20)
	expect(statuses.get(400)).toBeGreaterThan(BODIES / 100)
	// Nothing of what was sent is in the log.
	expect(app.printed()).not.toMatch(/1{100}|a{100}/)
})
