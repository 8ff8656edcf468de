import { useState } from 'react'
import { Link } from 'react-router'
import { FAMILIES } from '#core/vocabulary/words'
import { inSentence } from '#core/words/write-numbers'
import { may } from '#server/access/roles'
import { readLibraryPage } from '#server/library/read-library-pages'
import type { Route } from './+types/library'
import { signedIn } from '../request-guard'
import { QUALITY_NAMES } from '#core/plan/targets'
import { FamilyMark } from '../ui/glyphs'
import { ROLE_WORDS } from '../ui/theme-words'
import { sentences } from '#core/words/sentences'
import { useUnits } from '../field/units'

export const meta: Route.MetaFunction = () => [{ title: 'Library · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who, scope } = signedIn(context, request)
	return {
		...(await readLibraryPage(scope)),
		mayWrite: may(who.role, 'plan:write'),
	}
}

export default function LibraryPage({
	loaderData: { drills, ladders, themes, schools, mayWrite },
}: Route.ComponentProps) {
	const { asRead } = useUnits()
	const [search, setSearch] = useState('')
	const wanted = search.trim().toLowerCase()
	const shown = drills.filter(
		(drill) =>
			wanted === '' ||
			[drill.name, drill.family, drill.intensity, ...drill.cues].join(' ').toLowerCase().includes(wanted),
	)
	return (
		<>
			<header className="flex flex-wrap items-end justify-between gap-3">
				<div>
					<h1>Library</h1>
					<p className="dim mt-1">
						{drills.length} drills on {ladders.filter((ladder) => !ladder.path).length} ladders, three ways back,{' '}
						{themes.length} themes of a session, {schools.length} schools.
					</p>
				</div>
				{mayWrite && (
					<div className="flex gap-2">
						<Link className="btn btn-quiet" to="/library/drills/new">
							Write a drill
						</Link>
						<Link className="btn btn-quiet" to="/library/ladders/new">
							Write a ladder
						</Link>
						<Link className="btn btn-quiet" to="/library/themes/new">
							Write a theme
						</Link>
					</div>
				)}
			</header>
			<section className="mt-6">
				<h2>Ladders</h2>
				<ul className="mt-2 grid gap-x-10 sm:grid-cols-2 lg:grid-cols-3">
					{ladders.map((ladder) => (
						<li key={ladder.id} className="rule grid grid-cols-[30px_1fr] items-start gap-x-2 py-2">
							<span className="pt-0.5">
								<FamilyMark family={ladder.family} label />
							</span>
							<div>
								<Link className="font-bold hover:underline" to={`/library/ladders/${ladder.id}`}>
									{ladder.name}
								</Link>
								{ladder.own && <span className="dim"> · the club’s own</span>}
								<span className="dim block text-[13.5px]">
									{ladder.rungs} rungs, {asRead(inSentence(ladder.from))} to {asRead(inSentence(ladder.to))}
								</span>
							</div>
						</li>
					))}
				</ul>
			</section>
			<section className="mt-8">
				<h2>Themes</h2>
				<p className="dim mt-0.5">
					What a session is proposed from: one main quality, at most one second, the rest kept.
				</p>
				<ul className="mt-2 grid gap-x-10 sm:grid-cols-2">
					{themes.map((theme) => (
						<li key={theme.id} className="rule py-2">
							<Link className="font-bold hover:underline" to={`/library/themes/${theme.id}`}>
								{theme.name}
							</Link>{' '}
							<span className="dim text-[13.5px]">
								{theme.main ? QUALITY_NAMES[theme.main] : ROLE_WORDS[theme.role]}
								{theme.own && ' · the club’s own'}
							</span>
							<span className="block text-[14px]">{theme.about}</span>
						</li>
					))}
				</ul>
			</section>
			<section className="mt-8">
				<h2>Schools</h2>
				<p className="dim mt-0.5">
					Where good coaches disagree, each side with its reason.{' '}
					<Link className="link" to="/library/schools">
						Read both sides
					</Link>
				</p>
				<ul className="mt-2 grid gap-x-10 sm:grid-cols-2">
					{schools.map((school) => (
						<li key={school.id} className="rule py-2">
							<b>{school.name}</b> <span className="dim">{school.about}</span>
						</li>
					))}
				</ul>
			</section>
			<section className="mt-8">
				<div className="flex flex-wrap items-end justify-between gap-3">
					<h2>Drills</h2>
					<label className="flex items-center gap-2 text-[14px]">
						Find
						<input
							className="input w-[240px]"
							type="search"
							value={search}
							onChange={(event) => setSearch(event.target.value)}
							placeholder="a name, a cue, shock …"
						/>
					</label>
				</div>
				{shown.length === 0 && <p className="dim mt-3">No drill says “{search}”.</p>}
				{FAMILIES.map((family) => {
					const own = shown.filter((drill) => drill.family === family)
					return own.length === 0 ? null : (
						<section key={family} className="mt-5">
							<h3 className="flex items-center gap-2 border-b-2 border-ink pb-1 capitalize">
								<FamilyMark family={family} />
								{family} <span className="dim font-normal">{own.length}</span>
							</h3>
							<ul className="grid gap-x-10 sm:grid-cols-2">
								{own.map((drill) => (
									<li key={drill.id} className="border-b border-chalk py-1.5">
										<Link className="font-bold hover:underline" to={`/library/drills/${drill.id}`}>
											{asRead(drill.name)}
										</Link>{' '}
										<span className="dim text-[13.5px]">
											{drill.intensity}
											{drill.reactive && ', reactive'} · {drill.dose}
											{drill.parameters && asRead(` · ${drill.parameters}`)}
											{drill.own && ' · the club’s own'}
										</span>
										<span className="block text-[14px]">{asRead(sentences(drill.cues))}</span>
									</li>
								))}
							</ul>
						</section>
					)
				})}
			</section>
		</>
	)
}
