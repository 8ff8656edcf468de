import { useEffect } from 'react'
import { Link, NavLink, Outlet } from 'react-router'
import { may } from '#server/access/roles'
import type { Route } from './+types/signed-in'
import { openDeviceStore } from '../field/device-store'
import { giveUpInOtherHands } from '../field/other-hands'
import { registerFieldWorker } from '../field/register-worker'
import { signedIn } from '../request-guard'
import { localOf } from '../local-of'
import { LocalProvider } from '../ui/local'
import { UnitsProvider } from '../field/units'
import { CatchingUp } from '../ui/catching-up'
import { DraftsOf, forgetDrafts } from '../ui/kept-draft'
import { SignOut } from '../ui/sign-out'
import { useHeadingFocus } from '../ui/use-heading-focus'
import { Working } from '../ui/working'

export function loader({ context, request }: Route.LoaderArgs) {
	const { who } = signedIn(context, request)
	const places = may(who.role, 'plan:read')
		? [
				['/', 'Today'],
				['/squads', 'Squads'],
				['/plan', 'Plan'],
				['/review', 'Review'],
				['/bench', 'Bench'],
				['/library', 'Library'],
				['/club', 'Club'],
			]
		: [
				[`/athletes/${who.athleteId}`, who.role === 'guardian' ? 'Their page' : 'My page'],
				['/library', 'Library'],
				['/you', 'You'],
			]
	return {
		places: places as [string, string][],
		person: { id: who.personId, name: who.name, role: who.role, clubName: who.clubName },
		units: who.units,
		local: localOf(request),
	}
}

/** Places in plain words: a rail at the desk, a bar under the thumb on the phone. */
export default function SignedIn({ loaderData }: Route.ComponentProps) {
	const { places, person, units, local } = loaderData
	const { id, role, clubName, name } = person
	useEffect(registerFieldWorker, [])
	// Whoever signs in here may take the device to the field without a connection.
	useEffect(() => {
		forgetDrafts(id)
		void openDeviceStore().then((store) => giveUpInOtherHands(store, { id, role }))
	}, [id, role])
	useHeadingFocus()
	return (
		<div className="lg:pl-[112px] print:pl-0">
			<Working />
			<a href="#content" className="sr-only focus:not-sr-only">
				To the content
			</a>
			<nav
				aria-label="Places"
				className="print:hidden fixed inset-x-0 bottom-0 z-10 flex border-t border-chalk bg-paper pb-[env(safe-area-inset-bottom)] lg:inset-y-0 lg:right-auto lg:w-[112px] lg:flex-col lg:border-t-0 lg:border-r lg:py-5"
			>
				<b className="num hidden px-4 pb-5 text-[17px] lg:block">Dromos</b>
				{places.map(([to, label]) => (
					<NavLink
						key={to}
						to={to}
						end={to === '/'}
						className={({ isActive }) =>
							`flex min-h-[50px] flex-1 items-center justify-center border-t-[3px] px-1 text-[13.5px] lg:min-h-[44px] lg:flex-none lg:justify-start lg:border-t-0 lg:border-l-[3px] lg:px-4 lg:text-[15px] ${isActive ? 'border-ink font-bold text-ink' : 'border-transparent text-ink-2'}`
						}
					>
						{label}
					</NavLink>
				))}
				<div className="mt-auto hidden px-4 text-[13px] lg:block">
					<p className="dim">{clubName}</p>
					<Link className="link flex min-h-[44px] items-center" to="/you">
						{name}
					</Link>
					<SignOut className="link mt-2 min-h-[44px]" />
					<Link className="link flex min-h-[44px] items-center" to="/keys">
						Keys
					</Link>
				</div>
			</nav>
			<main id="content" className="mx-auto max-w-[1190px] px-4 pt-5 pb-24 sm:px-7 lg:pb-10">
				<UnitsProvider value={units}>
					<LocalProvider value={local}>
						<CatchingUp />
						<DraftsOf value={id}>
							<Outlet />
						</DraftsOf>
					</LocalProvider>
				</UnitsProvider>
			</main>
		</div>
	)
}
