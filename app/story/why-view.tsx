import { longDay } from '#core/calendar/say-day'
import type { WhyDay } from '#core/record/story'
import { PostForm } from '../ui/post-form'
import { useUnits } from '../field/units'

/** What may have made a day flat or good, ranked, and what it was if somebody says. */
export function WhyView({ why, mayName, problem }: { why: WhyDay; mayName: boolean; problem?: string | undefined }) {
	const { asRead } = useUnits()
	const list = (names: readonly string[]) => names.join(', ')
	return (
		<section>
			<h2>
				Why {why.state} on {longDay(why.day)}?
			</h2>
			<p className="mt-1 text-[14px]">{why.reading}</p>
			{why.causes.length === 0 ? (
				<p className="rule mt-2 py-2">
					<b>Nothing known.</b> Nothing that was logged explains it.
				</p>
			) : (
				<ol className="mt-2">
					{why.causes.map((cause) => (
						<li key={cause.id} className="rule py-2">
							<b>{cause.title}</b>
							{why.ticked.includes(cause.id) && <span> — that is what it was</span>}
							<span className="dim block">{asRead(cause.evidence)}</span>
						</li>
					))}
				</ol>
			)}
			<p className="rule dim py-2 text-[14px]">
				{why.notFound.length > 0 && `Not found: ${list(why.notFound)}. `}
				{why.notKnown.length > 0 && `Not logged, so not known: ${list(why.notKnown)}. `}
			</p>
			{mayName && (
				<details>
					<summary className="link inline-flex min-h-[44px] items-center">What was it?</summary>
					<PostForm preventScrollReset className="grid gap-1">
						<input type="hidden" name="session" value={why.sessionId} />
						<input type="hidden" name="do" value="cause" />
						{why.nameable.map(({ cause, name }) => (
							<label key={cause} className="flex min-h-[40px] max-lg:min-h-[44px] items-center gap-2.5">
								<input
									type="checkbox"
									className="h-[20px] w-[20px] accent-act"
									name="cause"
									value={cause}
									defaultChecked={why.ticked.includes(cause)}
								/>
								{name}
							</label>
						))}
						<button className="btn btn-quiet justify-self-start">Keep</button>
						{problem && (
							<p className="problem" role="alert">
								{problem}
							</p>
						)}
					</PostForm>
				</details>
			)}
		</section>
	)
}
