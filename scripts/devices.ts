import { setTimeout as wait } from 'node:timers/promises'
import { parseArgs } from 'node:util'
import type { DeviceKind, Reading } from '../core/devices/schema'
import { Random } from '../core/chance/random'
import { DEMO_ATHLETES, type DemoSquad } from '../server/demo/scenario'
import { beamsOfRun, hopsOnMat, throwAtSensor } from '../server/demo/stand-in-readings'
import { PlainError } from './plain-error'

const HELP = `Stand-ins for measuring devices: they pair like real ones and send what the demo squad would do.

    npm run devices -- --code ABCD-EFGH

  --code     the pairing code from the club's page
  --server   default http://127.0.0.1:4210
  --kinds    gates,mat,ball (default: gates)
  --squad    open, women or u17 (default: open)
  --beams    distances of the gates in metres (default: 0,10,20)
  --every    seconds from one athlete to the next (default: 20)
  --runs     how many before it ends (default: 60)
  --clock    hours the devices' clock is off (default: 3, so that putting it right is shown)
  --seed     for the same noise again`

/** Now and then the next one in the queue goes first. */
const WRONG_ORDER = 0.06

async function post<T>(url: string, body: unknown, token?: string): Promise<T> {
	const response = await fetch(url, {
		method: 'POST',
		headers: { 'content-type': 'application/json', ...(token ? { authorization: `Bearer ${token}` } : {}) },
		body: JSON.stringify(body),
	})
	const answer = (await response.json()) as T & { error?: string }
	if (!response.ok) throw new PlainError(answer.error ?? `${url} answered ${response.status}`)
	return answer
}

/** One device: keeps what could not be sent and sends it with the next. */
class StandIn {
	private waiting: Reading[] = []
	private constructor(
		readonly kind: DeviceKind,
		private readonly server: string,
		private readonly token: string,
		private readonly clockMs: number,
	) {}

	static async pair(kind: DeviceKind, server: string, code: string, clockMs: number): Promise<StandIn> {
		const { token } = await post<{ token: string }>(`${server}/api/devices/pair`, {
			code,
			kind,
			name: `${kind} stand-in`,
		})
		return new StandIn(kind, server, token, clockMs)
	}
	now = (): number => Date.now() + this.clockMs

	async send(readings: Reading[]): Promise<string> {
		this.waiting.push(...readings)
		try {
			const batch = this.waiting.slice(0, 500)
			const { answers } = await post<{ answers: { outcome: string; field?: string; reason?: string }[] }>(
				`${this.server}/api/devices/readings`,
				{ sentAt: new Date(this.now()).toISOString(), readings: batch },
				this.token,
			)
			this.waiting = this.waiting.slice(batch.length)
			const refused = answers.filter((answer) => answer.outcome === 'refused')
			return refused.length > 0
				? `${refused.length} refused, ${refused[0]!.field}: ${refused[0]!.reason}`
				: `${answers.length} taken`
		} catch (error) {
			if (error instanceof PlainError) throw error
			return `no connection, ${this.waiting.length} wait`
		}
	}
}

async function main(): Promise<void> {
	const { values } = parseArgs({
		options: {
			code: { type: 'string' },
			server: { type: 'string' },
			kinds: { type: 'string' },
			squad: { type: 'string' },
			beams: { type: 'string' },
			every: { type: 'string' },
			runs: { type: 'string' },
			clock: { type: 'string' },
			seed: { type: 'string' },
			help: { type: 'boolean' },
		},
	})
	if (values.help || !values.code) {
		console.log(HELP)
		process.exit(values.help ? 0 : 1)
	}
	const server = (values.server ?? 'http://127.0.0.1:4210').replace(/\/$/, '')
	const kinds = (values.kinds ?? 'gates').split(',') as DeviceKind[]
	const squad = (values.squad ?? 'open') as DemoSquad
	const beams = (values.beams ?? '0,10,20').split(',').map(Number)
	const number = (text: string | undefined, usual: number) =>
		text === undefined || Number.isNaN(Number(text)) ? usual : Number(text)
	const random = new Random(number(values.seed, Date.now() % 100_000))
	const athletes = DEMO_ATHLETES.filter((athlete) => athlete.squad === squad)
	if (athletes.length === 0) throw new PlainError(`--squad ${squad}: open, women or u17 is expected`)
	const devices: StandIn[] = []
	for (const kind of kinds)
		devices.push(await StandIn.pair(kind, server, values.code, number(values.clock, 3) * 3_600_000))
	console.log(
		`Paired: ${kinds.join(', ')}. ${athletes.length} athletes, one every ${number(values.every, 20)} s. Let the field screen's “More” take them in. Ctrl-C ends it.`,
	)

	const order = athletes.map((_, index) => index)
	for (let run = 0; run < number(values.runs, 60); run++) {
		if (run % athletes.length === 0) order.sort((a, b) => a - b)
		const at = run % athletes.length
		if (at + 1 < athletes.length && random.chance(WRONG_ORDER))
			[order[at], order[at + 1]] = [order[at + 1]!, order[at]!]
		const athlete = athletes[order[at]!]!
		for (const device of devices) {
			const readings =
				device.kind === 'gates'
					? beamsOfRun(athlete, device.now() - 4500, beams, 1, random)
					: device.kind === 'mat'
						? hopsOnMat(athlete, device.now() - 5000, 1, random)
						: [throwAtSensor(athlete, device.now() - 500, random)]
			console.log(`${athlete.name}, ${device.kind}: ${await device.send(readings)}`)
		}
		await wait(number(values.every, 20) * 1000)
	}
}

try {
	await main()
} catch (error) {
	console.error(error instanceof PlainError ? error.message : error)
	process.exit(1)
}
