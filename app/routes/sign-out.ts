import { redirect } from 'react-router'
import { signOut } from '#server/access/sign-in'
import type { Route } from './+types/sign-out'
import { signInCookie, tokenOf } from '../request-guard'

export async function action({ context }: Route.ActionArgs) {
	await signOut(tokenOf(context))
	return redirect('/sign-in', {
		headers: { 'set-cookie': await signInCookie.serialize('', { maxAge: 0 }), 'clear-site-data': '"cache"' },
	})
}

export const loader = () => redirect('/')
