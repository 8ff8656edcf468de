import { PostForm } from '../ui/post-form'
import { Said } from '../ui/said'
import type { AthleteAnswer } from './answer'

/** Whom to call: a form for who keeps it. */
export function EmergencyContact({
	emergency,
	mayContact,
	answer,
}: {
	emergency: { contact: string | null; version: number }
	mayContact: boolean
	answer: AthleteAnswer | undefined
}) {
	return (
		<section>
			<h2>In an emergency</h2>
			{mayContact ? (
				<PostForm preventScrollReset className="mt-2 flex flex-wrap items-center gap-2">
					<input type="hidden" name="version" value={emergency.version} />
					<input
						className="input min-w-0 flex-1"
						name="contact"
						defaultValue={emergency.contact ?? ''}
						key={emergency.contact}
						placeholder="Name, who it is, number"
						maxLength={200}
						aria-label="Whom to call in an emergency"
					/>
					<button className="btn btn-quiet">Keep</button>
					<input type="hidden" name="do" value="contact" />
					<Said answer={answer?.which === 'contact' ? answer : undefined} />
				</PostForm>
			) : (
				<p className="rule mt-2 py-2">{emergency.contact ?? 'Nobody is on record.'}</p>
			)}
			{answer?.problems.contact && (
				<p className="problem" role="alert">
					{answer.problems.contact}
				</p>
			)}
			<p className="dim mt-1 text-[13.5px]">
				Shown on the field to whoever reports a blow to the head, chest pain or what closes.
			</p>
		</section>
	)
}
