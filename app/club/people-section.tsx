import { PostForm } from '../ui/post-form'
import { TextField } from '../ui/text-field'
import { type ClubSaid, SaidSaved, isOpen } from './said-saved'

interface Person {
	id: string
	name: string
	email: string
	role: string
	/** The athlete they are or answer for. */
	of: string | null
	roles: readonly string[]
	hasLeft: boolean
	version: number
}

/** Who signs in: renamed, given another role, taken off and let in again. */
export function PeopleSection({
	people,
	changed,
	passwordLink,
}: {
	people: readonly Person[]
	changed: ClubSaid | null
	passwordLink: { of: string; url: string } | null
}) {
	return (
		<section>
			<h2>People who sign in</h2>
			<ul className="mt-2">
				{people
					.filter(({ hasLeft }) => !hasLeft)
					.map((person) => (
						<li key={person.id} className="rule py-2">
							<div className="flex justify-between gap-4">
								<span className="min-w-0">
									<b>{person.name}</b>
									<span className="dim block text-[14px] break-all">{person.email}</span>
								</span>
								<span className="text-right">
									{person.role}
									{person.of && person.of !== person.name && (
										<span className="dim block text-[14px]">of {person.of}</span>
									)}
								</span>
							</div>
							<details open={isOpen(person.id, changed) || passwordLink?.of === person.id}>
								<summary className="link inline-flex min-h-[44px] items-center" aria-label={`Change ${person.name}`}>
									Change
								</summary>
								<PostForm preventScrollReset key={person.version} className="grid max-w-[440px] gap-3 pb-2">
									<input type="hidden" name="personId" value={person.id} />
									<input type="hidden" name="version" value={person.version} />
									<TextField label="Name" name="name" defaultValue={person.name} maxLength={200} required />
									{person.roles.length > 1 ? (
										<label className="field">
											<span className="label">Role</span>
											<select className="input" name="role" defaultValue={person.role}>
												{person.roles.map((role) => (
													<option key={role} value={role}>
														{role}
													</option>
												))}
											</select>
										</label>
									) : (
										<input type="hidden" name="role" value={person.role} />
									)}
									<input type="hidden" name="do" value="person" />
									<button className="btn btn-quiet justify-self-start">Keep</button>
									{isOpen(person.id, changed) && <SaidSaved of={person.id} changed={changed} />}
								</PostForm>
								<PostForm preventScrollReset className="pb-2">
									<input type="hidden" name="personId" value={person.id} />
									<button
										className="btn btn-quiet"
										name="do"
										value="password-link"
										aria-label={`Link for a new password, ${person.name}`}
									>
										Link for a new password
									</button>
									{passwordLink?.of === person.id ? (
										<p className="mt-2 border-l-[3px] border-act py-1 pl-3" role="status">
											Copy it now; it is not shown again. It holds for two days.
											<br />
											<code className="text-[14px] break-all" data-testid="password-link">
												{passwordLink.url}
											</code>
										</p>
									) : (
										<p className="dim text-[14px]">
											Who forgot theirs sets a new one by it, and is signed out elsewhere.
										</p>
									)}
								</PostForm>
								<PostForm preventScrollReset className="pb-2">
									<input type="hidden" name="personId" value={person.id} />
									<button
										className="btn btn-quiet"
										name="do"
										value="take-person-off"
										aria-label={`Take off ${person.name}`}
									>
										Take off
									</button>
									<p className="dim text-[14px]">
										Taken off, they are signed out everywhere at once. What they wrote stays, and they can be let in
										again.
									</p>
								</PostForm>
							</details>
							{!isOpen(person.id, changed) && <SaidSaved of={person.id} changed={changed} />}
						</li>
					))}
			</ul>
			{people.some(({ hasLeft }) => hasLeft) && (
				<>
					<h3 className="mt-5">Taken off</h3>
					<ul className="mt-1">
						{people
							.filter(({ hasLeft }) => hasLeft)
							.map((person) => (
								<li key={person.id} className="rule flex items-center justify-between gap-4 py-1">
									<span className="min-w-0">
										{person.name}
										<span className="dim block text-[14px] break-all">{person.email}</span>
									</span>
									<PostForm preventScrollReset>
										<input type="hidden" name="personId" value={person.id} />
										<button
											className="btn btn-quiet"
											name="do"
											value="bring-person-back"
											aria-label={`Let in again: ${person.name}`}
										>
											Let in again
										</button>
									</PostForm>
								</li>
							))}
					</ul>
				</>
			)}
		</section>
	)
}
