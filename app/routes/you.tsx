import { data } from 'react-router'
import { type Units, UNITS } from '#core/words/units'
import { changePassword, endSignIns, readSignIns, setUnits } from '#server/access/change-self'
import type { Route } from './+types/you'
import { signedIn, tokenOf } from '../request-guard'
import { actOn } from '../intents'
import { PostForm } from '../ui/post-form'
import { Said } from '../ui/said'
import { SignOut } from '../ui/sign-out'
import { TextField } from '../ui/text-field'
import { writeMoment } from '../ui/write-moment'

export const meta: Route.MetaFunction = () => [{ title: 'You · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who } = signedIn(context, request)
	const signIns = await readSignIns(who, tokenOf(context) ?? '', new Date())
	return { name: who.name, role: who.role, club: who.clubName, units: who.units, signIns }
}

interface Answer {
	of: 'units' | 'password' | 'devices'
	did?: string
	problem?: string
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = signedIn(context, request)
	const token = tokenOf(context) ?? ''
	const answer = (of: Answer['of'], done: { saved: true } | { problem: string }, did: string) =>
		'problem' in done ? data<Answer>({ of, problem: done.problem }, { status: 400 }) : data<Answer>({ of, did })
	return actOn(request, {
		units: async ({ text }) => answer('units', await setUnits(who, text('units')), 'Kept.'),
		password: async ({ text }) =>
			answer(
				'password',
				await changePassword(who, token, { old: text('old'), fresh: text('fresh') }, new Date()),
				'Changed. You are signed out everywhere else.',
			),
		'sign-out-of': async ({ text }) =>
			answer('devices', await endSignIns(who, token, text('signIn'), new Date()), 'Signed out there.'),
	})
}

const SAYS: Record<Units, { name: string; example: string }> = {
	metric: { name: 'Metric', example: '2.45 m, 40 cm, 3 kg' },
	imperial: { name: 'Feet, inches, pounds', example: '8 ft 0.5 in, 15.7 in, 6.6 lb' },
}

/** What somebody sets for themselves alone. */
export default function You({ loaderData, actionData }: Route.ComponentProps) {
	const { name, role, club, units, signIns } = loaderData
	const of = (form: Answer['of']) => (actionData?.of === form ? actionData : undefined)
	return (
		<>
			<h1>{name}</h1>
			<p className="dim mt-1">
				{role}, {club}
			</p>
			<section className="mt-6 max-w-[560px]">
				<h2>Units</h2>
				<PostForm preventScrollReset className="mt-1" key={units}>
					<input type="hidden" name="do" value="units" />
					<fieldset>
						<legend className="sr-only">Units you read and type</legend>
						{UNITS.map((one) => (
							<label key={one} className="rule flex min-h-[44px] items-center gap-3 py-1">
								<input
									type="radio"
									name="units"
									value={one}
									defaultChecked={one === units}
									className="size-5 accent-act"
								/>
								<b>{SAYS[one].name}</b>
								<span className="num dim">{SAYS[one].example}</span>
							</label>
						))}
					</fieldset>
					<p className="mt-2">
						A distance to run stays as it was laid out: 20 m are 20 m and 40 yd are 40 yd for everybody. Wherever a
						length or a mass is typed, a unit you type with it counts: “16 in”, “40 cm”, “10 yd”, “6 lb”.
					</p>
					<button className="btn mt-3">Set</button>
					<Said answer={of('units')} problem={of('units')?.problem} />
				</PostForm>
			</section>
			<section className="mt-7 max-w-[560px]">
				<h2>Signed in on {signIns.length === 1 ? 'one device' : `${signIns.length} devices`}</h2>
				<ul className="mt-1">
					{signIns.map((one) => (
						<li key={one.id} className="rule flex flex-wrap items-center justify-between gap-x-4 py-1">
							<span className="min-h-[44px] content-center">
								{one.device || 'a device'}
								{one.isThis && <b>, this one</b>}
								<span className="dim block text-[14px]" suppressHydrationWarning>
									since {writeMoment(one.since)}, last used {writeMoment(one.seen)}
								</span>
							</span>
							{!one.isThis && (
								<PostForm preventScrollReset>
									<input type="hidden" name="signIn" value={one.id} />
									<button className="btn btn-quiet" name="do" value="sign-out-of">
										Sign out there
									</button>
								</PostForm>
							)}
						</li>
					))}
				</ul>
				<p className="dim mt-1 text-[14px]">
					A device nobody uses for two weeks is signed out, and each one after 90 days.
				</p>
				<div className="mt-2 flex flex-wrap gap-2">
					<SignOut className="btn btn-quiet" />
					{signIns.length > 1 && (
						<PostForm preventScrollReset>
							<input type="hidden" name="signIn" value="" />
							<button className="btn btn-quiet" name="do" value="sign-out-of">
								Sign out everywhere else
							</button>
						</PostForm>
					)}
				</div>
				<Said answer={of('devices')} problem={of('devices')?.problem} />
			</section>
			<section className="mt-7 max-w-[440px]">
				<h2>Another password</h2>
				<PostForm preventScrollReset className="mt-2 grid gap-3">
					<input type="hidden" name="do" value="password" />
					<TextField label="The one you have" name="old" type="password" autoComplete="current-password" required />
					<TextField
						label="The new one"
						name="fresh"
						type="password"
						autoComplete="new-password"
						hint="Fifteen characters or more; four words are easy to keep."
						problem={of('password')?.problem}
						required
					/>
					<button className="btn btn-quiet justify-self-start">Change it</button>
					<Said answer={of('password')} />
				</PostForm>
			</section>
		</>
	)
}
