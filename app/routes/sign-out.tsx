import { redirect } from 'react-router'
import { signOut } from '#server/access/sign-in'
import type { Route } from './+types/sign-out'
import { formOf } from '../intents'
import { signedIn, signInCookie, tokenOf } from '../request-guard'
import { CLEARED, SignOut } from '../ui/sign-out'

export const meta: Route.MetaFunction = () => [{ title: 'Sign out · Dromos' }]

export function loader({ context, request }: Route.LoaderArgs) {
	signedIn(context, request)
	return null
}

export async function action({ context, request }: Route.ActionArgs) {
	// Pressed before the page was awake, nobody has looked at the device yet: this page does, as soon as it is.
	if ((await formOf(request)).get(CLEARED.name) !== CLEARED.value) return { pressed: true }
	await signOut(tokenOf(context))
	return redirect('/sign-in', {
		headers: { 'set-cookie': await signInCookie.serialize('', { maxAge: 0 }), 'clear-site-data': '"cache"' },
	})
}

export default function SignOutPage({ actionData }: Route.ComponentProps) {
	return (
		<>
			<h1>Sign out</h1>
			<p className="dim mt-1 max-w-[60ch]">
				The squads’ data are taken off this device first; what was logged here and not sent yet is said.
			</p>
			<div className="mt-6 max-w-[360px]">
				<SignOut className="btn" atOnce={actionData !== undefined} />
				<noscript>
					<form method="post" action="/sign-out" className="mt-3">
						<button className="btn btn-quiet" name={CLEARED.name} value={CLEARED.value}>
							Sign out; this browser runs no scripts and keeps nothing
						</button>
					</form>
				</noscript>
			</div>
		</>
	)
}
