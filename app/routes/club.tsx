import { Link, data } from 'react-router'
import { longDate } from '#core/calendar/say-day'
import { invite, linkForPassword } from '#server/access/join'
import {
	type ClubChanged,
	bringPersonBack,
	changeClub,
	changePerson,
	keepHealthNotes,
	takePersonOff,
	withdrawInvitation,
} from '#server/access/change-club'
import { readClubPage } from '#server/access/read-club-page'
import { makePairingCode, unpair } from '#server/devices/pair'
import { saveAddress } from '#server/care/emergency'
import { addGround, changeGround, takeGroundOff } from '#server/field-map/save-map'
import type { Route } from './+types/club'
import { allowed, notFound } from '../request-guard'
import { GroundsSection } from '../club/grounds-section'
import { PeopleSection } from '../club/people-section'
import { SaidSaved } from '../club/said-saved'
import { SignOut } from '../ui/sign-out'
import { PostForm } from '../ui/post-form'
import { TextField } from '../ui/text-field'
import { MeanwhileNote, type Overtaken } from '../ui/meanwhile-note'
import { versionSeen } from '#server/submissions/take-version'
import { type Sent, actOn } from '../intents'

export const meta: Route.MetaFunction = () => [{ title: 'Club · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	return readClubPage(allowed(context, request, 'plan:read').who, new Date())
}

const nothing = {
	link: null,
	passwordLink: null,
	problem: null,
	code: null,
	groundProblem: null,
	place: null,
	changed: null,
}
type Result = Exclude<ClubChanged, null> | null
/** What one of the small forms came to, under the id of what it is about. */
function answered(of: string, result: Result) {
	if (result === null) throw notFound()
	if ('saved' in result) return data<Said>({ ...nothing, changed: { of } })
	const status = 'meanwhile' in result ? 409 : 400
	return data<Said>({ ...nothing, changed: { of, ...result } }, { status })
}
const typedGround = ({ text }: Sent) => ({
	name: text('name'),
	lengthM: text('lengthM'),
	widthM: text('widthM'),
	surface: text('surface'),
})

export async function action({ context, request }: Route.ActionArgs) {
	return actOn<Answer>(request, {
		club: async ({ text, form }) => {
			const { who } = allowed(context, request, 'people:write')
			const typed = { name: text('name'), timeZone: text('timeZone') }
			return answered('club', await changeClub(who, typed, versionSeen(form), new Date()))
		},
		'health-notes': async ({ text, form }) => {
			const { who } = allowed(context, request, 'people:write')
			return answered('health-notes', await keepHealthNotes(who, text('months'), versionSeen(form), new Date()))
		},
		person: async ({ text, form }) => {
			const { who } = allowed(context, request, 'people:write')
			const typed = { name: text('name'), role: text('role') }
			return answered(text('personId'), await changePerson(who, text('personId'), typed, versionSeen(form), new Date()))
		},
		'take-person-off': async ({ text }) => {
			const { who } = allowed(context, request, 'people:write')
			return answered(text('personId'), await takePersonOff(who, text('personId'), new Date()))
		},
		'bring-person-back': async ({ text }) => {
			const { who } = allowed(context, request, 'people:write')
			return answered(text('personId'), await bringPersonBack(who, text('personId'), new Date()))
		},
		'password-link': async ({ text }) => {
			const { who, scope } = allowed(context, request, 'people:write')
			const made = await linkForPassword(scope, who.personId, text('personId'), new Date())
			if (!made) throw notFound()
			return data<Said>({
				...nothing,
				passwordLink: { of: text('personId'), url: `${new URL(request.url).origin}/join/${made.token}` },
			})
		},
		withdraw: async ({ text }) => {
			const { who } = allowed(context, request, 'people:write')
			return answered('invitations', await withdrawInvitation(who, text('invitationId'), new Date()))
		},
		ground: async (sent) => {
			const { who } = allowed(context, request, 'plan:write')
			const added = await addGround(who, typedGround(sent))
			return 'problem' in added
				? data<Said>({ ...nothing, groundProblem: added.problem }, { status: 400 })
				: data<Said>({ ...nothing, changed: { of: 'grounds' } })
		},
		'change-ground': async (sent) => {
			const { who } = allowed(context, request, 'plan:write')
			const id = sent.text('groundId')
			return answered(id, await changeGround(who, id, typedGround(sent), versionSeen(sent.form), new Date()))
		},
		unground: async ({ text }) => {
			const { who } = allowed(context, request, 'plan:write')
			await takeGroundOff(who, text('groundId'), true)
			return data<Said>({ ...nothing, changed: { of: 'grounds' } })
		},
		'bring-ground-back': async ({ text }) => {
			const { who } = allowed(context, request, 'plan:write')
			await takeGroundOff(who, text('groundId'), false)
			return data<Said>({ ...nothing, changed: { of: 'grounds' } })
		},
		address: async ({ text, form }) => {
			const { who } = allowed(context, request, 'plan:write')
			const saved = await saveAddress(who, text('place'), text('address'), versionSeen(form), new Date())
			if ('meanwhile' in saved)
				return data<Said>({ ...nothing, place: { of: text('place'), meanwhile: saved.meanwhile } }, { status: 409 })
			return 'problem' in saved
				? data<Said>({ ...nothing, place: { of: text('place'), problem: saved.problem } }, { status: 400 })
				: data<Said>({ ...nothing, place: { of: text('place') } })
		},
		pair: async () => {
			const { scope } = allowed(context, request, 'people:write')
			return data<Said>({ ...nothing, code: (await makePairingCode(scope, new Date())).code })
		},
		unpair: async ({ text }) => {
			const { scope } = allowed(context, request, 'people:write')
			await unpair(scope, text('deviceId'), new Date())
			return data<Said>({ ...nothing, changed: { of: 'devices' } })
		},
		invite: async ({ text }) => {
			const { who, scope } = allowed(context, request, 'people:write')
			const result = await invite(scope, who.personId, text('role'), text('athleteId') || null, new Date())
			if ('problems' in result)
				return data<Said>({ ...nothing, problem: Object.values(result.problems).join(' ') }, { status: 400 })
			return data<Said>({ ...nothing, link: `${new URL(request.url).origin}/join/${result.token}` })
		},
	})
}

interface Said {
	link: string | null
	/** A link for somebody's new password, shown once. */
	passwordLink: { of: string; url: string } | null
	problem: string | null
	code: string | null
	groundProblem: string | null
	/** What became of the address of a place. */
	place: { of: string; problem?: string; meanwhile?: Overtaken } | null
	/** What became of a change, under the id of what was changed. */
	changed: { of: string; problem?: string; meanwhile?: Overtaken } | null
}
type Answer = ReturnType<typeof data<Said>>

const MAY: Record<string, string> = {
	coach: 'plans, logs, judges, invites',
	assistant: 'logs the sessions of today; reads plans and verdicts; not the pain reports',
	clinician: 'reads everything; records clearances',
	athlete: 'sees the own page; reports own pain',
	guardian: 'sees the page of a minor, reports for them, records who cleared them, says that they are well again',
}

export default function Club({ loaderData, actionData }: Route.ComponentProps) {
	const { club, timeZone, name, role, mayInvite, version, people, invitations, athletes, roles, devices } = loaderData
	const { grounds, groundsOff, places, mayPlan, healthNotesMonths, healthNotesOffered } = loaderData
	const changed = actionData?.changed ?? null
	return (
		<>
			<h1>{club}</h1>
			<p className="dim mt-1">
				Days are counted in {timeZone}. You are {name}, {role}.
			</p>
			{mayInvite && (
				<div className="mt-1 flex flex-wrap items-start gap-x-6">
					<Link className="link inline-flex min-h-[44px] items-center" to="/club/data">
						Data out and in
					</Link>
					<Link className="link inline-flex min-h-[44px] items-center" to="/club/record">
						Who did what
					</Link>
					<details open={changed?.of === 'club'}>
						<summary className="link inline-flex min-h-[44px] items-center">Name and clock</summary>
						<PostForm preventScrollReset key={version} className="grid max-w-[440px] gap-3 pt-1 pb-3">
							<input type="hidden" name="do" value="club" />
							<input type="hidden" name="version" value={version} />
							<TextField label="Name of the club" name="name" defaultValue={club} maxLength={200} required />
							<TextField
								label="Time zone"
								name="timeZone"
								defaultValue={timeZone}
								required
								hint="Like Europe/Lisbon. Sessions ahead keep their time of day and are held by it; what was held stays when it was."
							/>
							<button className="btn btn-quiet justify-self-start">Keep</button>
							<SaidSaved of="club" changed={changed} />
						</PostForm>
					</details>
					<details open={changed?.of === 'health-notes'}>
						<summary className="link inline-flex min-h-[44px] items-center">Words about health</summary>
						<PostForm preventScrollReset key={version} className="grid max-w-[440px] gap-3 pt-1 pb-3">
							<input type="hidden" name="do" value="health-notes" />
							<input type="hidden" name="version" value={version} />
							<div className="field">
								<label htmlFor="months">What was typed about somebody’s health is kept</label>
								<select id="months" name="months" className="input" defaultValue={String(healthNotesMonths ?? '')}>
									{healthNotesOffered.map((months) => (
										<option key={months} value={String(months ?? '')}>
											{months === null ? 'as long as the athlete is here' : `${months} months`}
										</option>
									))}
								</select>
							</div>
							<p className="dim text-[14px]">
								Older words go for good, at once and then each day. Regions, scores, days and clearances stay: what is
								closed and the way back are worked out from them. The words of a restriction stay while it is in force.
								Backups made before keep what was in them.
							</p>
							<button className="btn btn-quiet justify-self-start">Keep it so</button>
							<SaidSaved of="health-notes" changed={changed} />
						</PostForm>
					</details>
				</div>
			)}
			<div className="mt-3 flex gap-2 lg:hidden">
				<Link className="btn btn-quiet" to="/you">
					You
				</Link>
				<SignOut className="btn btn-quiet" />
			</div>
			<GroundsSection
				grounds={grounds}
				off={groundsOff}
				mayPlan={mayPlan}
				changed={changed}
				problem={actionData?.groundProblem ?? null}
			/>
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
										{actionData?.place?.of === place && !actionData.place.meanwhile && !actionData.place.problem && (
											<p role="status">Kept.</p>
										)}
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
					<PeopleSection people={people} changed={changed} passwordLink={actionData?.passwordLink ?? null} />
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
								<label htmlFor="athleteId">Athlete, when the role is athlete or guardian</label>
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
						{invitations.length > 0 && (
							<>
								<h3 className="mt-5">Links not used yet</h3>
								<ul className="mt-1">
									{invitations.map((one) => (
										<li key={one.id} className="rule flex items-center justify-between gap-4 py-1">
											<span>
												{one.role}
												{one.of && ` of ${one.of}`} <span className="dim">until {longDate(one.expires)}</span>
											</span>
											<PostForm preventScrollReset>
												<input type="hidden" name="invitationId" value={one.id} />
												<button className="btn btn-quiet" name="do" value="withdraw">
													Withdraw
												</button>
											</PostForm>
										</li>
									))}
								</ul>
							</>
						)}
						<SaidSaved of="invitations" changed={changed} words="Withdrawn: nobody joins by that link." />
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
