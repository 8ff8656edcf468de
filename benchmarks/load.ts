import { randomUUID } from 'node:crypto'
import { Agent, request } from 'node:http'
import { setTimeout as wait } from 'node:timers/promises'
import type { Connection, RowDataPacket } from 'mysql2/promise'
import { DEMO_SIGN_IN } from '../server/demo/sign-in'
import { fillBigClub } from './big-club'
import { Site, doneMarks, withBench } from './site'

const COACHES = 50
const PHONES = 20
/** Who reads a page looks at it. */
const THINK_MS = 1000
/** Whoever goes from page to page fetches what is on them; a whole page comes with a first look or a press of reload. */
const WHOLE_PAGE_EVERY = 8
const dataOf = (page: string): string => (page === '/' ? '/_.data' : `${page}.data`)
/** A phone that has a connection sends what was logged since; now and then one comes back from a dead spot with more. */
const SEND_EVERY_MS = 3000
const LONG_QUEUE_EVERY = 5
const LONG_QUEUE = 50
const PROCESSES = 2
const SMALL = '/favicon.svg'
const LOOK_EVERY_MS = 25
/** How long it goes on before it is measured. */
const SETTLE_MS = 60_000
const MEASURED_MS = 60_000
/** How long it goes on after one of the processes is killed. */
const AFTER_KILL_MS = 15_000
/** Strangers who try to sign in at once, and the pages read meanwhile. */
const STRANGERS = 120
const PAGES_MEANWHILE = 16

interface Club {
	id: string
	pages: string[]
	/** Where its phones log. */
	line: { id: string; entryId: string; athleteId: string; sessionId: string }
}

export const percentile = (values: readonly number[], share: number): string =>
	values.length === 0
		? 'none'
		: `${[...values].sort((a, b) => a - b)[Math.ceil(values.length * share) - 1]!.toFixed(0)} ms`

/** Processor time of those who ask: the machine has that much less for the application. */
const ownCpuMs = (): number => {
	const { user, system } = process.cpuUsage()
	return (user + system) / 1000
}

/** What a stretch of load has shown; another one is put in its place when the next begins. */
class Seen {
	readonly pages = new Map<string, number[]>()
	readonly batches: number[] = []
	/** What takes no work: how long the thread that listens keeps others waiting. */
	readonly small: number[] = []
	readonly failures = new Map<string, number>()
	fail = (what: string) => this.failures.set(what, (this.failures.get(what) ?? 0) + 1)
	add(page: string, ms: number): void {
		const times = this.pages.get(page) ?? []
		times.push(ms)
		this.pages.set(page, times)
	}
}

/**
 * Fifty coaches and twenty phones at once, in the filled club and the twenty beside it, served by two processes of which
 * one is killed in the end: times, failures, and whether what was acknowledged is there.
 */
export async function benchLoad(): Promise<void> {
	const today = new Date().toISOString().slice(0, 10)
	await withBench(async (bench) => {
		await fillBigClub(bench.url('dromos_big'), today)
		const site = await Site.start(bench, 'dromos_big', ['--workers', String(PROCESSES)])
		try {
			await load(site)
		} finally {
			await site.stop()
		}
	})
}

async function load(site: Site): Promise<void> {
	const clubs = await clubsOf(site)
	let seen = new Seen()
	let going = true
	const acknowledged = new Set<string>()
	const devices: string[] = []
	const signIn = async (i: number) => site.signIn({ ...DEMO_SIGN_IN, email: emailOf(i % clubs.length) })

	/** Reads page after page. */
	const coach = async (i: number, cookie: string) => {
		const { pages } = clubs[i % clubs.length]!
		await wait((THINK_MS * i) / COACHES)
		for (let look = i; going; look++) {
			const page = pages[look % pages.length]!
			const isWhole = look % WHOLE_PAGE_EVERY === 0
			const began = performance.now()
			const status = await statusOf(site.address + (isWhole ? page : dataOf(page)), cookie)
			if (status === 200)
				seen.add(`${page.replace(/[0-9a-f-]{36}/, '…')}${isWhole ? ', whole' : ''}`, performance.now() - began)
			else seen.fail(`page ${status}`)
			await wait(THINK_MS)
		}
	}
	/** Sends what was logged until it is acknowledged, as a phone does. */
	const phone = async (i: number, cookie: string) => {
		const { line } = clubs[(i + 1) % clubs.length]!
		const device = { id: randomUUID(), seq: 0 }
		devices.push(device.id)
		await wait((SEND_EVERY_MS * i) / PHONES)
		for (let batch = i; going; batch++) {
			const isLong = batch % LONG_QUEUE_EVERY === 0
			const { id: lineId, ...place } = line
			const events = doneMarks(isLong ? LONG_QUEUE : 1, { ...place, lineId }, device)
			const began = performance.now()
			for (let isIn = false; !isIn; ) {
				const answer = await post(site, '/api/events', cookie, { events })
				isIn = answer.status === 200
				if (!isIn) {
					seen.fail(`marks ${answer.status}`)
					await wait(500)
					continue
				}
				for (const { id, outcome } of answer.body.answers as { id: string; outcome: string }[])
					if (outcome === 'accepted' || outcome === 'replayed') acknowledged.add(id)
					else seen.fail(`a mark was ${outcome}`)
			}
			if (isLong) seen.batches.push(performance.now() - began)
			await wait(SEND_EVERY_MS)
		}
	}
	/** Waits for what others log, always. */
	const listen = async (i: number, cookie: string) => {
		const { line } = clubs[(i + 1) % clubs.length]!
		for (let since: string | null = null, known: string[] = []; going; ) {
			const question = { sessionId: line.sessionId, since, seen: known, deviceId: devices[i] ?? randomUUID() }
			const { status, body } = await post(site, '/api/field/changes', cookie, question)
			if (status === 200) {
				since = body.serverNow as string
				known = [...known, ...(body.heard as string[])].slice(-500)
			} else {
				seen.fail(`news ${status}`)
				await wait(500)
			}
		}
	}

	/** Fetches a small file again and again. */
	const look = async () => {
		while (going) {
			const began = performance.now()
			if ((await statusOf(site.address + SMALL, '')) === 200) seen.small.push(performance.now() - began)
			else seen.fail('small file')
			await wait(LOOK_EVERY_MS)
		}
	}

	const coaches = await inOrder(COACHES, signIn)
	const phones = await inOrder(PHONES, (i) => signIn(i + 1))
	// After a start every page is worked out for the first time, by each process: as many at once go to all of them.
	const start = performance.now()
	for (const [i, { pages }] of clubs.entries())
		for (const page of pages)
			await Promise.all(coaches.slice(0, PROCESSES).map(() => statusOf(site.address + page, coaches[i]!)))
	console.log(`every page once: ${((performance.now() - start) / 1000).toFixed(0)} s`)
	const work = [
		...coaches.map((cookie, i) => coach(i, cookie)),
		...phones.flatMap((cookie, i) => [phone(i, cookie), listen(i, cookie)]),
		look(),
	]
	await wait(SETTLE_MS)
	seen = new Seen()
	const cpuMs = () => ({ ...site.cpuMs(), 'who asks': ownCpuMs() })
	const [before, began] = [cpuMs(), Date.now()]
	await wait(MEASURED_MS)
	const measured = seen
	const used = Object.entries(cpuMs()).map(
		([name, ms]) =>
			`${name} ${Math.round((100 * (ms - before[name as keyof typeof before])) / (Date.now() - began))} %`,
	)
	seen = new Seen()
	process.kill(site.webPids()[0]!, 'SIGKILL')
	await wait(AFTER_KILL_MS)
	const afterKill = seen
	going = false
	await Promise.all(work)

	const all = [...measured.pages.values()].flat()
	console.log(
		`${COACHES} coaches and ${PHONES} phones at ${PROCESSES} processes, a club of a million marks among ${clubs.length}, ${MEASURED_MS / 1000} s:\n`,
	)
	for (const [page, times] of measured.pages)
		console.log(
			`${page.padEnd(24)}${String(times.length).padStart(5)} times   median ${percentile(times, 0.5).padStart(8)}   95th percentile ${percentile(times, 0.95).padStart(8)}`,
		)
	console.log(
		`${'all pages'.padEnd(24)}${String(all.length).padStart(5)} times   median ${percentile(all, 0.5).padStart(8)}   95th percentile ${percentile(all, 0.95).padStart(8)} (aim: under 300)`,
	)
	console.log(
		`${LONG_QUEUE} marks acknowledged, ${measured.batches.length} times: median ${percentile(measured.batches, 0.5)}, 95th percentile ${percentile(measured.batches, 0.95)} (aim: under 150)`,
	)
	console.log(
		`a file of a few bytes, ${measured.small.length} times: median ${percentile(measured.small, 0.5)}, 99th percentile ${percentile(measured.small, 0.99)} (aim: under 50)`,
	)
	console.log(`failures: ${said(measured)} (aim: none); processor: ${used.join(', ')}`)
	const kept = await keptOf(site.connection, devices)
	const lost = [...acknowledged].filter((id) => kept.get(id) !== 1).length
	const late = [...afterKill.pages.values()].flat()
	console.log(
		`after one process was killed: ${late.length} pages in ${AFTER_KILL_MS / 1000} s, 95th percentile ${percentile(late, 0.95)}; failures: ${said(afterKill)}; ${acknowledged.size.toLocaleString('en')} marks acknowledged in all, ${lost} of them not there once (aim: 0)`,
	)
	await strangers(site, coaches[0]!)
	await tidy(site, clubs, devices)
}

const said = ({ failures }: Seen): string =>
	failures.size === 0 ? 'none' : [...failures].map(([what, times]) => `${times} × ${what}`).join(', ')

/** Pages of one who is in, while many who are not try to get in at once. */
async function strangers(site: Site, cookie: string): Promise<void> {
	const pages = ['/plan', '/squads', '/club']
	const read = async (page: string) => {
		const began = performance.now()
		await (await fetch(site.address + page, { headers: { cookie } })).text()
		return performance.now() - began
	}
	for (const page of [...pages, ...pages]) await read(page)
	const tries = Promise.all(
		Array.from({ length: STRANGERS }, (_, i) =>
			post(site, '/sign-in', '', new URLSearchParams({ email: `nobody${i}@example.org`, password: 'not the word' })),
		),
	)
	const times: number[] = []
	while (times.length < PAGES_MEANWHILE) {
		times.push(await read(pages[times.length % pages.length]!))
		await wait(150)
	}
	await tries
	console.log(
		`${STRANGERS} strangers sign in at once; pages meanwhile: ${times.map((ms) => ms.toFixed(0)).join(' ')} ms (aim: each under 500)`,
	)
}

const emailOf = (club: number): string => (club === 0 ? DEMO_SIGN_IN.email : `${club}.${DEMO_SIGN_IN.email}`)

async function inOrder<T>(count: number, one: (i: number) => Promise<T>): Promise<T[]> {
	const all: T[] = []
	for (let i = 0; i < count; i++) all.push(await one(i))
	return all
}

/** Connections are kept, as browsers keep them. */
const agent = new Agent({ keepAlive: true })
/**
 * Asks with as little as asking takes: the machine is the server's too, and a standard `fetch` unpacks pages that nobody
 * reads. What is used is printed.
 *
 * @param body sent by POST, where there is one
 * @returns the answer, of a POST with what it says; rejected where the connection broke
 */
const ask = (
	address: string,
	headers: Record<string, string>,
	body?: string,
): Promise<{ status: number; text: string }> =>
	new Promise((resolve, reject) => {
		const asked = request(address, { agent, method: body === undefined ? 'GET' : 'POST', headers }, (answer) => {
			const parts: Buffer[] = []
			if (body === undefined) answer.resume()
			else answer.on('data', (part: Buffer) => parts.push(part))
			answer.once('end', () => resolve({ status: answer.statusCode!, text: Buffer.concat(parts).toString() }))
			answer.once('error', reject)
		})
		asked.once('error', reject)
		asked.end(body)
	})

/** The status of a page that has come to its end; 0 where the connection broke. */
export const statusOf = (address: string, cookie: string): Promise<number> =>
	ask(address, { cookie, 'accept-encoding': 'gzip, deflate' }).then(
		({ status }) => status,
		() => 0,
	)

/** An answer that is none, because the connection broke, has the status 0. */
export async function post(
	site: Site,
	place: string,
	cookie: string,
	sent: object,
): Promise<{ status: number; body: Record<string, unknown> }> {
	const isForm = sent instanceof URLSearchParams
	const type = isForm ? 'application/x-www-form-urlencoded' : 'application/json'
	const body = isForm ? sent.toString() : JSON.stringify(sent)
	const length = String(Buffer.byteLength(body))
	try {
		const answer = await ask(
			site.address + place,
			{ cookie, origin: site.address, 'content-type': type, 'content-length': length },
			body,
		)
		const isRead = answer.status === 200 && !isForm
		return { status: answer.status, body: isRead ? (JSON.parse(answer.text) as Record<string, unknown>) : {} }
	} catch {
		return { status: 0, body: {} }
	}
}

/** The filled club first, then those beside it. */
async function clubsOf(site: Site): Promise<Club[]> {
	const clubs: Club[] = []
	for (;;) {
		const [[person]] = await site.connection.query<RowDataPacket[]>(
			'select club_id as id from person where email = ?',
			[emailOf(clubs.length)],
		)
		if (!person) return clubs
		const id = person.id as string
		const squad = await site.one<{ id: string }>(
			"select id from squad where club_id = ? and name like 'Open%' order by id limit 1",
			[id],
		)
		const line = await site.one<Club['line']>(
			'select l.id, l.entry_id as entryId, l.athlete_id as athleteId, l.session_id as sessionId from line l join session s on s.club_id = l.club_id and s.id = l.session_id where l.club_id = ? and s.squad_id = ? and s.started_at is null and l.blocked is null order by s.day, l.id limit 1',
			[id, squad.id],
		)
		const waiting = await site.one<{ id: string }>(
			'select id from session where club_id = ? and started_at is not null and reviewed_at is null order by day limit 1',
			[id],
		)
		clubs.push({
			id,
			line,
			pages: [
				'/',
				`/sessions/${line.sessionId}`,
				'/plan',
				`/sessions/${waiting.id}/review`,
				'/squads',
				`/athletes/${line.athleteId}`,
				`/athletes/${line.athleteId}/care`,
			],
		})
	}
}

/** How often each mark of some devices is kept. */
export async function keptOf(connection: Connection, devices: readonly string[]): Promise<Map<string, number>> {
	const [rows] = await connection.query<RowDataPacket[]>(
		'select id, count(*) as times from mark where device_id in (?) group by id',
		[devices],
	)
	return new Map(rows.map(({ id, times }) => [id as string, Number(times)]))
}

/** The next run finds the sessions as this one did. */
async function tidy(site: Site, clubs: readonly Club[], devices: readonly string[]): Promise<void> {
	await site.connection.query('delete from mark where device_id in (?)', [devices])
	for (const { id, line } of clubs)
		await site.connection.query('update session set started_at = null where club_id = ? and id = ?', [
			id,
			line.sessionId,
		])
	await site.connection.query(
		"delete from sign_in where person_id in (select id from person where email like '%demo.invalid')",
	)
	await site.changed()
}
