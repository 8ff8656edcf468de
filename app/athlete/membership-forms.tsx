import { type Away, sayAway } from '#core/calendar/away'
import type { AthleteAnswer } from './answer'
import { PostForm } from '../ui/post-form'
import { Said } from '../ui/said'
import { DayField } from '../ui/text-field'

/** What a change did to the sessions ahead, in a sentence. */
export function sayFollowed({ off, on }: { off: number; on: number }): string {
	const sessions = (count: number) => (count === 1 ? 'one session' : `${count} sessions`)
	const did = [
		...(off > 0 ? [`off ${sessions(off)} ahead`] : []),
		...(on > 0 ? [`down for ${sessions(on)} ahead`] : []),
	]
	return did.length === 0 ? 'Kept. No session ahead changes.' : `Kept: ${did.join(', ')}.`
}

/** The squads somebody trains with. */
export function SquadsForm({
	squads,
	memberOf,
	version,
	answer,
}: {
	squads: readonly { id: string; name: string }[]
	memberOf: readonly string[]
	version: number
	answer: AthleteAnswer | undefined
}) {
	const own = answer?.which === 'squads' ? answer : undefined
	return (
		<details className="mb-5" open={own !== undefined || answer?.problems.squads !== undefined}>
			<summary className="link inline-flex min-h-[44px] items-center">Squads</summary>
			<PostForm preventScrollReset key={version} className="grid gap-2 pt-1">
				<input type="hidden" name="version" value={version} />
				<fieldset>
					<legend className="sr-only">Squads</legend>
					{squads.map((squad) => (
						<label key={squad.id} className="flex min-h-[44px] items-center gap-2">
							<input
								type="checkbox"
								name="squad"
								value={squad.id}
								defaultChecked={memberOf.includes(squad.id)}
								className="size-5 accent-act"
							/>
							{squad.name}
						</label>
					))}
				</fieldset>
				<p className="dim text-[14px]">
					Leaving a squad takes them off its sessions ahead; joining one puts them on those that all of it are down for.
					In no squad, everything logged stays here.
				</p>
				<button className="btn btn-quiet justify-self-start" name="do" value="squads">
					Keep
				</button>
				<Said answer={own} problem={answer?.problems.squads} />
			</PostForm>
		</details>
	)
}

/** Not there for a while. */
export function AwayForm({
	away,
	today,
	version,
	answer,
}: {
	away: Away | null
	today: string
	version: number
	answer: AthleteAnswer | undefined
}) {
	const own = answer?.which === 'away' ? answer : undefined
	const { awayFrom, awayUntil } = answer?.problems ?? {}
	const said = sayAway(away, today)
	return (
		<details className="mb-5" open={own !== undefined || awayFrom !== undefined || awayUntil !== undefined}>
			<summary className="link inline-flex min-h-[44px] items-center">
				{said === null ? 'Away for a while' : said.replace(/^a/, 'A')}
			</summary>
			<PostForm preventScrollReset key={version} className="grid gap-3 pt-1">
				<input type="hidden" name="version" value={version} />
				<DayField
					label="From"
					name="awayFrom"
					defaultValue={said === null ? '' : (away?.from ?? '')}
					problem={awayFrom}
				/>
				<DayField
					label="Last day"
					name="awayUntil"
					defaultValue={said === null ? '' : (away?.until ?? '')}
					problem={awayUntil}
					hint="Empty while you do not know. They are back when both are empty."
				/>
				<button className="btn btn-quiet justify-self-start" name="do" value="away">
					Keep
				</button>
				<Said answer={own} problem={undefined} />
			</PostForm>
		</details>
	)
}
