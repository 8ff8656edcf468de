import { shortDay } from '#core/calendar/say-day'
import type { BodyNow } from '#core/field/body-now'
import { useUnits } from '../field/units'

/** Who of a session must not do what, in a few lines over its drills: the same on the calendar, the sheet and the printed card. */
export function BodyLines({ bodies }: { bodies: ({ id: string; name: string } & BodyNow)[] }) {
	const { asRead } = useUnits()
	const say = (words: (body: BodyNow) => string[]) =>
		bodies
			.flatMap((body) => {
				const said = words(body)
				return said.length === 0 ? [] : [`${body.name} (${said.join(', ')})`]
			})
			.join('; ')
	const since = (place: string, day: string) => `${place}, since ${shortDay(day)}`
	const closed = say((body) =>
		body.everythingSince
			? [since('everything', body.everythingSince)]
			: [...body.closed.map((one) => since(one.place, one.since)), ...body.shut],
	)
	const spared = say((body) =>
		body.spared.map((one) => `${since(one.place, one.since)}${one.ask ? ', ask how it was' : ''}`),
	)
	const back = say((body) => body.back.map(({ step }) => step))
	const easy = bodies.filter((body) => body.easyOnly).map((body) => body.name)
	if (bodies.length === 0) return null
	return (
		<div className="border-l-4 border-attn pl-3" role="note" aria-label="Closed, spared, on the way back">
			{closed !== '' && (
				<p>
					<b className="text-attn">Closed: {closed}</b>
				</p>
			)}
			{easy.length > 0 && <p>Nothing high, shock or maximal: {easy.join(', ')}</p>}
			{spared !== '' && <p>To be spared: {spared}</p>}
			{back !== '' && <p>On the way back: {asRead(back)}</p>}
		</div>
	)
}
