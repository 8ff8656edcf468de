import { OUTSIDE_DEFAULTS, OUTSIDE_KINDS, OUTSIDE_NAMES } from '#core/judge/outside-load'
import { PostForm } from '../ui/post-form'
import { ClockField, DayField, TextField } from '../ui/text-field'

const WHAT_WAS_HARD = [
	['hardRunning', 'Hard running'],
	['hardCutting', 'Hard cutting'],
	['hardJumping', 'Hard jumping'],
] as const

/** What else loads the athlete: a match, practice, the gym. */
export function OutsideForm({ problem }: { problem: string | undefined }) {
	return (
		<details className="mt-1" open={problem !== undefined}>
			<summary className="link inline-flex min-h-[44px] items-center">Enter a match, practice or gym</summary>
			<PostForm preventScrollReset className="grid grid-cols-2 gap-2">
				<label className="field">
					<span className="label">What</span>
					<select name="kind" className="input">
						{OUTSIDE_KINDS.map((kind) => (
							<option key={kind} value={kind}>
								{OUTSIDE_NAMES[kind]}
							</option>
						))}
					</select>
				</label>
				<DayField label="Day" name="day" className="grid-cols-1" />
				<ClockField label="Starts" name="startTime" />
				<TextField
					label="Minutes"
					name="minutes"
					inputMode="numeric"
					placeholder={String(OUTSIDE_DEFAULTS.match.minutes)}
				/>
				<TextField label="Effort, 0 to 10" name="rpe" inputMode="decimal" />
				{WHAT_WAS_HARD.map(([name, label]) => (
					<label key={name} className="field">
						<span className="label">{label}</span>
						<select name={name} className="input">
							<option value="">as usual</option>
							<option value="yes">yes</option>
							<option value="no">no</option>
						</select>
					</label>
				))}
				<div className="col-span-2">
					<TextField
						label="In the gym: exercise, kg × reps; “first time” where it was"
						name="lifts"
						placeholder="back squat 100 kg × 5; nordic curl × 4 first time"
					/>
				</div>
				<button className="btn btn-quiet self-end" name="do" value="outside">
					Enter
				</button>
				{problem && (
					<p className="problem col-span-2" role="alert">
						{problem}
					</p>
				)}
			</PostForm>
		</details>
	)
}
