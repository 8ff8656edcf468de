import { longDay } from '#core/calendar/say-day'
import { PostForm } from '../ui/post-form'

/** One tap says how hard the last session was; the minutes stand as planned until somebody changes them. */
export function EffortAsked({
	asked: { sessionId, day, minutes },
	problem,
}: {
	asked: { sessionId: string; day: string; minutes: number }
	problem: string | undefined
}) {
	return (
		<section className="mt-5 max-w-[640px]">
			<h2>How hard was {longDay(day)}?</h2>
			<PostForm preventScrollReset className="mt-1.5">
				<input type="hidden" name="session" value={sessionId} />
				<input type="hidden" name="do" value="effort" />
				<div className="grid grid-cols-6 gap-1 sm:grid-cols-11">
					{Array.from({ length: 11 }, (_, rpe) => (
						<button
							key={rpe}
							className="btn btn-quiet num px-0"
							name="rpe"
							value={rpe}
							aria-label={`Effort ${rpe} of 10`}
						>
							{rpe}
						</button>
					))}
				</div>
				<p className="dim mt-1 flex flex-wrap items-center gap-2 text-[14px]">
					0 is rest, 10 the hardest there is; the whole session, over
					<input
						className="input num w-[70px]"
						name="minutes"
						inputMode="numeric"
						defaultValue={minutes}
						aria-label="Minutes it lasted"
						// Enter would press the first button: a session that was rest.
						onKeyDown={(event) => event.key === 'Enter' && event.preventDefault()}
					/>
					min.
				</p>
				{problem && (
					<p className="problem" role="alert">
						{problem}
					</p>
				)}
			</PostForm>
		</section>
	)
}
