import { data } from 'react-router'
import { SURFACES } from '#core/vocabulary/words'
import { invite } from '#server/access/join'
import { readClubPage } from '#server/access/read-club-page'
import { makePairingCode, unpair } from '#server/devices/pair'
import { saveAddress } from '#server/care/emergency'
import { addGround, removeGround } from '#server/field-map/save-map'
import type { Route } from './+types/club'
import { allowed } from '../request-guard'
import { SignOut } from '../ui/sign-out'
import { PostForm } from '../ui/post-form'
import { MeanwhileNote, type Overtaken } from '../ui/meanwhile-note'
import { versionSeen } from '#server/submissions/take-version'
import { actOn } from '../intents'

export const meta: Route.MetaFunction = () => [{ title: 'Club · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	return readClubPage(allowed(context, request, 'plan:read').who)
}

export async function action({ context, request }: Route.ActionArgs) {
	const nothing = { link: null, problem: null, code: null, groundProblem: null, place: null }
	return actOn<Answer>(request, {
		ground: async ({ text }) => {
			const { who } = allowed(context, request, 'plan:write')
			const typed = {
				name: text('name'),
				lengthM: text('lengthM'),
				widthM: text('widthM'),
				surface: text('surface'),
			}
			const added = await addGround(who, typed)
			return 'problem' in added ? data({ ...nothing, groundProblem: added.problem }, { status: 400 }) : data(nothing)
		},
		unground: async ({ text }) => {
			const { who } = allowed(context, request, 'plan:write')
			await removeGround(who, text('groundId'))
			return data(nothing)
		},
		address: async ({ text, form }) => {
			const { who } = allowed(context, request, 'plan:write')
			const saved = await saveAddress(who, text('place'), text('address'), versionSeen(form), new Date())
			if ('meanwhile' in saved)
				return data({ ...nothing, place: { of: text('place'), meanwhile: saved.meanwhile } }, { status: 409 })
			return 'problem' in saved
				? data({ ...nothing, place: { of: text('place'), problem: saved.problem } }, { status: 400 })
				: data(nothing)
		},
		pair: async () => {
			const { scope } = allowed(context, request, 'people:write')
			return data({ ...nothing, code: (await makePairingCode(scope, new Date())).code })
		},
		unpair: async ({ text }) => {
			const { scope } = allowed(context, request, 'people:write')
			await unpair(scope, text('deviceId'), new Date())
			return data(nothing)
		},
		invite: async ({ text }) => {
			const { who, scope } = allowed(context, request, 'people:write')
			const result = await invite(scope, who.personId, text('role'), text('athleteId') || null, new Date())
			if ('problems' in result)
				return data({ ...nothing, problem: Object.values(result.problems).join(' ') }, { status: 400 })
			return data({ ...nothing, link: `${new URL(request.url).origin}/join/${result.token}` })
		},
	})
}

type Answer = ReturnType<
	typeof data<{
		link: string | null
		problem: string | null
		code: string | null
		groundProblem: string | null
		/** What became of the address of a place. */
		place: { of: string; problem?: string; meanwhile?: Overtaken } | null
	}>
>

const MAY: Record<string, string> = {
	coach: 'plans, logs, judges, invites',
	assistant: 'logs the sessions of today; reads plans and verdicts; not the pain reports',
	clinician: 'reads everything; records clearances',
	athlete: 'sees the own page; reports own pain',
	guardian: 'sees the page of a minor, reports for them, records who cleared them, says that they are well again',
}

export default function Club({ loaderData, actionData }: Route.ComponentProps) {
	const { club, timeZone, name, role, mayInvite, people, athletes, roles, devices, grounds, places, mayPlan } =
		loaderData
	return (
		<>
			<h1>{club}</h1>
			<p className="dim mt-1">
				Days are counted in {timeZone}. You are {name}, {role}.
			</p>
			<div className="mt-3 lg:hidden">
				<SignOut className="btn btn-quiet" />
			</div>
			<section className="mt-7 max-w-[720px]">
				<h2>Grounds</h2>
				<p className="dim mt-1">
					Paced out once, from the base corner: length along, width up. The field maps stand on them.
				</p>
				<ul className="mt-2">
					{grounds.map((ground) => (
						<li key={ground.id} className="rule flex items-center justify-between gap-4 py-2">
							<span>
								<b>{ground.name}</b>
								<span className="dim block text-[14px]">
									<span className="num">
										{ground.lengthM} × {ground.widthM} m
									</span>
									, {ground.surface.replace('-', ' ')}
								</span>
							</span>
							{mayPlan && (
								<PostForm>
									<input type="hidden" name="groundId" value={ground.id} />
									<button className="btn btn-quiet" name="do" value="unground" aria-label={`Take ${ground.name} off`}>
										Take off
									</button>
								</PostForm>
							)}
						</li>
					))}
				</ul>
				{grounds.length === 0 && <p className="rule dim mt-2 py-2">None yet.</p>}
				{mayPlan && (
					<PostForm className="mt-3 flex flex-wrap items-end gap-3" key={grounds.length}>
						<label className="field w-[220px]">
							<span className="label">Name</span>
							<input className="input" name="name" required maxLength={200} />
						</label>
						<label className="field w-[90px]">
							<span className="label">Length, m</span>
							<input className="input" name="lengthM" inputMode="decimal" required />
						</label>
						<label className="field w-[90px]">
							<span className="label">Width, m</span>
							<input className="input" name="widthM" inputMode="decimal" required />
						</label>
						<label className="field w-[140px]">
							<span className="label">Under foot</span>
							<select className="input" name="surface">
								{SURFACES.map((surface) => (
									<option key={surface} value={surface}>
										{surface.replace('-', ' ')}
									</option>
								))}
							</select>
						</label>
						<button className="btn" name="do" value="ground">
							Add the ground
						</button>
					</PostForm>
				)}
				{actionData?.groundProblem && (
					<p className="problem mt-2" role="alert">
						{actionData.groundProblem}
					</p>
				)}
			</section>
			{places.length > 0 && (
				<section className="mt-7 max-w-[720px]">
					<h2>Where help has to come to</h2>
					<p className="dim mt-1">
						The address of each place, with the gate to use. The field shows it when somebody has to be helped.
					</p>
					<ul className="mt-2">
						{places.map(({ place, address, version }) => (
							<li key={place} className="rule py-2">
								{mayPlan ? (
									<PostForm preventScrollReset className="grid items-center gap-2 sm:grid-cols-[200px_1fr_auto]">
										<input type="hidden" name="place" value={place} />
										<input type="hidden" name="version" value={version} />
										<b>{place}</b>
										<input
											className="input"
											name="address"
											defaultValue={address}
											key={address}
											maxLength={300}
											placeholder="Street, number, gate"
											aria-label={`Address of ${place}`}
										/>
										<button className="btn btn-quiet">Keep</button>
										<input type="hidden" name="do" value="address" />
										{actionData?.place?.of === place && actionData.place.meanwhile && (
											<MeanwhileNote overtaken={actionData.place.meanwhile} />
										)}
										{actionData?.place?.of === place && actionData.place.problem && (
											<p className="problem" role="alert">
												{actionData.place.problem}
											</p>
										)}
									</PostForm>
								) : (
									<p>
										<b>{place}</b> {address || 'no address is written down'}
									</p>
								)}
							</li>
						))}
					</ul>
				</section>
			)}
			{mayInvite && (
				<div className="mt-7 grid gap-x-10 gap-y-8 lg:grid-cols-2">
					<section>
						<h2>People who sign in</h2>
						<ul className="mt-2">
							{people.map((person) => (
								<li key={person.id} className="rule flex justify-between gap-4 py-2">
									<span>
										<b>{person.name}</b>
										<span className="dim block text-[14px]">{person.email}</span>
									</span>
									<span>{person.role}</span>
								</li>
							))}
						</ul>
					</section>
					<section>
						<h2>Invite somebody</h2>
						<p className="dim mt-1">One link, one person, two weeks. Send it yourself, over whatever you use.</p>
						<PostForm className="mt-3 grid max-w-[440px] gap-4">
							<input type="hidden" name="do" value="invite" />
							<div className="field">
								<label htmlFor="role">Role</label>
								<select id="role" name="role" className="input" defaultValue="assistant">
									{roles.map((option) => (
										<option key={option} value={option}>
											{option}
										</option>
									))}
								</select>
								<ul className="dim text-[14px]">
									{roles.map((option) => (
										<li key={option}>
											{option}: {MAY[option]}
										</li>
									))}
								</ul>
							</div>
							<div className="field">
								<label htmlFor="athleteId">Athlete, when the role is athlete</label>
								<select id="athleteId" name="athleteId" className="input" defaultValue="">
									<option value="">—</option>
									{athletes.map((athlete) => (
										<option key={athlete.id} value={athlete.id}>
											{athlete.name}
										</option>
									))}
								</select>
							</div>
							{actionData?.problem && (
								<p className="problem" role="alert">
									{actionData.problem}
								</p>
							)}
							<button className="btn justify-self-start">Make a link</button>
						</PostForm>
						{actionData?.link && (
							<p className="mt-4 border-l-[3px] border-act py-1 pl-3" role="status">
								Copy it now; it is not shown again.
								<br />
								<code className="text-[14px] break-all" data-testid="invitation">
									{actionData.link}
								</code>
							</p>
						)}
					</section>
					<section>
						<h2>Measuring devices</h2>
						<p className="dim mt-1">
							Timing gates, contact mats and ball sensors that speak the open protocol pair with a code, once. What they
							see reaches the phone that lets them log.
						</p>
						<ul className="mt-2">
							{devices.map((device) => (
								<li key={device.id} className="rule flex items-center justify-between gap-4 py-2">
									<span>
										<b>{device.name}</b>
										<span className="dim block text-[14px]">
											{device.kind} ·{' '}
											{device.lastSeenAt
												? `last heard ${device.lastSeenAt.slice(0, 16).replace('T', ' ')} UTC`
												: 'not heard yet'}
										</span>
									</span>
									<PostForm>
										<input type="hidden" name="do" value="unpair" />
										<input type="hidden" name="deviceId" value={device.id} />
										<button className="btn btn-quiet">Unpair</button>
									</PostForm>
								</li>
							))}
						</ul>
						{devices.length === 0 && <p className="rule dim mt-2 py-2">None yet.</p>}
						<PostForm className="mt-3">
							<input type="hidden" name="do" value="pair" />
							<button className="btn">Make a pairing code</button>
						</PostForm>
						{actionData?.code && (
							<p className="mt-4 border-l-[3px] border-act py-1 pl-3" role="status">
								Type it into the device within the hour.
								<br />
								<code className="num text-[28px]" data-testid="pairing-code">
									{actionData.code}
								</code>
							</p>
						)}
					</section>
				</div>
			)}
		</>
	)
}
