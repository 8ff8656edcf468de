// A day of the browser tests' own. Their club is made for the day the run began on, so a run over midnight would look
// for what happens today on a day that has none of it. Every Node process of a run, applications included, goes by a
// clock that showed nine in the morning (UTC) of its day when the run began. The browser keeps the true one: a phone
// goes by the server's.
const BEGAN_AT_HOUR = 9
const HOUR_MS = 3_600_000

process.env.TEST_CLOCK_AHEAD_MS ??= String(BEGAN_AT_HOUR * HOUR_MS - (Date.now() % (24 * HOUR_MS)))
const ahead = Number(process.env.TEST_CLOCK_AHEAD_MS)

// Whatever a process of the run starts has it too, and a module that is read twice moves the clock once.
const here = `--import=${import.meta.url}`
if (!process.env.NODE_OPTIONS?.includes(here)) process.env.NODE_OPTIONS = `${process.env.NODE_OPTIONS ?? ''} ${here}`

const MOVED = Symbol.for('the clock has been moved')
if (!(MOVED in globalThis)) {
	Object.defineProperty(globalThis, MOVED, { value: true })
	const trueNow = Date.now
	Date.now = () => trueNow() + ahead
	globalThis.Date = new Proxy(Date, {
		construct: (target, given, newTarget) =>
			Reflect.construct(target, given.length === 0 ? [Date.now()] : given, newTarget),
	})
}
