import { capital } from '#core/words/write-numbers'
import type { BodyNow } from '#core/field/body-now'
import type { Ask } from '#core/field/to-ask'
import { placeOf } from '#core/rules/bars'
import { shortDay } from '#core/calendar/say-day'
import { PostForm } from './post-form'
import { useUnits } from '../field/units'

interface Body extends BodyNow {
	athleteId: string
	name: string
	said: { id: string; words: string }[]
	asks: Ask[]
}

/** Whose body the session leaves to be looked at: what is closed or spared now, what was said, who is still to be asked. */
export function ReviewBodies({ bodies, mayAsk }: { bodies: Body[]; mayAsk: boolean }) {
	const { asRead } = useUnits()
	if (bodies.length === 0) return null
	return (
		<section className="mb-5 border-l-4 border-attn pl-4" aria-label="Closed, spared, said today, to be asked">
			<ul className="grid gap-x-10 gap-y-2 sm:grid-cols-2">
				{bodies.map((body) => (
					<li key={body.athleteId}>
						<a className="font-bold hover:underline" href={`/athletes/${body.athleteId}`}>
							{body.name}
						</a>
						{body.everythingSince && (
							<p className="font-bold text-attn">Everything closed, since {shortDay(body.everythingSince)}</p>
						)}
						{body.closed.map((one) => (
							<p key={one.place} className="font-bold text-attn">
								{capital(one.place)} closed, since {shortDay(one.since)}
							</p>
						))}
						{body.shut.map((words) => (
							<p key={words} className="font-bold text-attn">
								{capital(words)} closed
							</p>
						))}
						{body.spared.map((one) => (
							<p key={one.place}>
								Spare the {one.place}, since {shortDay(one.since)}
							</p>
						))}
						{body.back.length > 0 && (
							<p className="dim">On the way back: {asRead(body.back.map(({ step }) => step).join(', '))}</p>
						)}
						{body.easyOnly && <p>Nothing high, shock or maximal</p>}
						{body.said.map((one) => (
							<p key={one.id} className="dim text-[14.5px]">
								{capital(one.words)}
							</p>
						))}
						{body.asks.map((ask) => (
							<AskForm key={`${ask.region}${ask.side}`} athleteId={body.athleteId} ask={ask} mayAsk={mayAsk} />
						))}
					</li>
				))}
			</ul>
		</section>
	)
}

function AskForm({ athleteId, ask, mayAsk }: { athleteId: string; ask: Ask; mayAsk: boolean }) {
	const words = ask.afterAnything ? 'How was the head, dizziness, breath?' : `How was the ${placeOf(ask)}?`
	if (!mayAsk) return <p className="font-bold">Not asked yet: {words}</p>
	return (
		<PostForm preventScrollReset className="flex flex-wrap items-center gap-2 py-1">
			<input type="hidden" name="athlete" value={athleteId} />
			<input type="hidden" name="region" value={ask.region} />
			<input type="hidden" name="side" value={ask.side} />
			<label className="flex items-center gap-2">
				<b>{words}</b>
				<select name="score" className="input w-24" defaultValue="" required>
					<option value="" disabled>
						0–10
					</option>
					{Array.from({ length: 11 }, (_, score) => (
						<option key={score}>{score}</option>
					))}
				</select>
			</label>
			<button className="btn btn-quiet" name="do" value="asked">
				Answered
			</button>
		</PostForm>
	)
}
