import { Link } from 'react-router'
import { shortDay } from '#core/calendar/say-day'
import type { Body } from '#core/field/body-now'
import { REPEATS_TOLD } from '#core/care/return-plan'
import { capital } from '#core/words/write-numbers'
import { useUnits } from '../field/units'

/** Who must not do what today: whom everything is closed for, whom something, who spares, who is on the way back. */
export function BodyBand({ bodies }: { bodies: Body[] }) {
	const { asRead } = useUnits()
	if (bodies.length === 0) return null
	return (
		<section className="mt-5 border-l-4 border-attn pl-4" aria-label="Closed, spared, on the way back">
			<ul className="grid gap-x-10 sm:grid-cols-2">
				{bodies.map((body) => (
					<li key={body.id} className="py-1">
						<Link
							className="font-bold hover:underline max-lg:inline-flex max-lg:min-h-[44px] max-lg:items-center"
							to={`/athletes/${body.id}`}
						>
							{body.name}
						</Link>{' '}
						<span className="dim text-[14px]">{body.squadName}</span>
						{body.everythingSince && (
							<p className="font-bold text-attn">
								Everything closed since {shortDay(body.everythingSince)}: no line until a doctor has cleared it
							</p>
						)}
						{body.closed.map((one) => (
							<p key={one.place} className="font-bold text-attn">
								{capital(one.place)} closed since {shortDay(one.since)}
							</p>
						))}
						{body.shut.map((words) => (
							<p key={words} className="font-bold text-attn">
								{capital(words)} closed
							</p>
						))}
						{body.easyOnly && (
							<p>
								{body.unwellSince
									? `Unwell since ${shortDay(body.unwellSince)}: nothing high, shock or maximal`
									: 'Nothing high, shock or maximal'}
							</p>
						)}
						{body.spared.map((one) => (
							<p key={one.place}>
								Spare the {one.place}, since {shortDay(one.since)}
								{one.ask && <b>. Ask how it was</b>}
							</p>
						))}
						{body.back.length > 0 && (
							<p className="dim">On the way back: {asRead(body.back.map(({ step }) => step).join(', '))}</p>
						)}
						{body.back
							.filter(({ repeats }) => repeats >= REPEATS_TOLD)
							.map(({ step, repeats }) => (
								<p key={step}>
									<b>
										{step} repeated {repeats} times for 1 or 2
									</b>
									: a health professional decides whether that is known and accepted
								</p>
							))}
					</li>
				))}
			</ul>
		</section>
	)
}
