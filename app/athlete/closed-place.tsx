import { shortDay } from '#core/calendar/say-day'
import { placeOf } from '#core/rules/bars'
import type { Closure } from '#core/vocabulary/care'
import { PostForm } from '../ui/post-form'
import { TextField } from '../ui/text-field'

/** A region to be spared or closed, or everything: since when, what it bars, and the one way on. */
export function ClosedPlace({
	closure,
	mayClear,
	mayReport,
	problems,
}: {
	closure: Closure
	mayClear: boolean
	mayReport: boolean
	problems: Record<string, string>
}) {
	const { grade, region, side, since } = closure
	const all = region === 'everything'
	const roles = all ? (['doctor'] as const) : (['physiotherapist', 'doctor', 'clinician'] as const)
	return (
		<section className="mt-5 border-l-[4px] border-attn py-1 pl-4">
			<h2 className="text-attn">
				{grade === 'spare' ? 'Spare the' : 'Closed until cleared:'} {placeOf(closure)}, since {shortDay(since)}
			</h2>
			<p className="mt-1 max-w-[70ch]">
				{all
					? 'No line at all. After head or chest a doctor decides.'
					: grade === 'spare'
						? 'Nothing that loads it much, nothing hard on it. It ends when the easy form was done on a later day and the athlete, asked, says 0 or 1.'
						: 'Nothing that loads it, in any session, until a health professional has cleared it.'}
			</p>
			{grade === 'spare' ? (
				mayReport && (
					<PostForm preventScrollReset className="mt-2 flex flex-wrap items-end gap-3">
						<input type="hidden" name="region" value={region} />
						<input type="hidden" name="side" value={side ?? 'both'} />
						<label className="field">
							<span className="label">Asked after the easy form, 0 to 10</span>
							<input className="input num w-[90px]" name="score" inputMode="numeric" required />
						</label>
						<button className="btn btn-quiet" name="do" value="asked">
							How was it
						</button>
						{problems.asked && (
							<p className="problem" role="alert">
								{problems.asked}
							</p>
						)}
					</PostForm>
				)
			) : mayClear ? (
				<PostForm className="mt-2 grid max-w-[760px] items-start gap-3 sm:grid-cols-[1fr_190px_150px_auto]">
					<input type="hidden" name="region" value={region} />
					<input type="hidden" name="side" value={side ?? ''} />
					<TextField label="Cleared by" name="clearedBy" required problem={problems.clearedBy} />
					<label className="field">
						<span className="label">Their profession</span>
						<select className="input" name="role" defaultValue={roles[0]}>
							{roles.map((role) => (
								<option key={role} value={role}>
									{role === 'clinician' ? 'another health profession' : role}
								</option>
							))}
						</select>
						{problems.role && (
							<p className="problem" role="alert">
								{problems.role}
							</p>
						)}
					</label>
					<label className="field">
						<span className="label">Was it an injury</span>
						<select className="input" name="injury" defaultValue="">
							<option value="">not said</option>
							<option value="yes">yes</option>
							<option value="no">no</option>
						</select>
					</label>
					<button className="btn sm:mt-[22px]" name="do" value="clear">
						Record
					</button>
				</PostForm>
			) : (
				<p>Coach, clinician or guardian record who cleared it.</p>
			)}
			{grade !== 'spare' && (
				<p className="dim mt-1 text-[14px]">
					After an injury, or more than a week, it opens the way back, step by step.
				</p>
			)}
		</section>
	)
}
