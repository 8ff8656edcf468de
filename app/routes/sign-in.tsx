import { useEffect } from 'react'
import { data, redirect, useNavigation } from 'react-router'
import { signInWithPassword } from '#server/access/sign-in'
import type { Route } from './+types/sign-in'
import { openDeviceStore } from '../field/device-store'
import { TAKEN_OFF } from '../field/signed-out'
import { fromOf, maybeWho, signedInCookies, wasEnded } from '../request-guard'
import { TextField } from '../ui/text-field'
import { PostForm } from '../ui/post-form'
import { formOf } from '../intents'

export const meta: Route.MetaFunction = () => [{ title: 'Sign in · Dromos' }]

export async function loader({ context }: Route.LoaderArgs) {
	if (maybeWho(context)) throw redirect('/')
	return { ended: await wasEnded(context) }
}

/** Only places of this site: a link may not send somebody elsewhere after signing in. */
const safePlace = (to: string | null) => (to && /^\/(?![/\\])/.test(to) ? to : '/')

export async function action({ request }: Route.ActionArgs) {
	const form = await formOf(request)
	const email = String(form.get('email') ?? '')
	const result = await signInWithPassword(email, String(form.get('password') ?? ''), await fromOf(request), new Date())
	if ('problem' in result)
		return data({ problem: result.problem, email: email.slice(0, 254) }, { status: result.busy ? 503 : 400 })
	return redirect(safePlace(new URL(request.url).searchParams.get('to')), {
		headers: await signedInCookies(result),
	})
}

export default function SignIn({ loaderData: { ended }, actionData }: Route.ComponentProps) {
	const busy = useNavigation().state !== 'idle'
	useEffect(() => {
		if (ended) void openDeviceStore().then((store) => store.clear())
	}, [ended])
	return (
		<main className="mx-auto grid min-h-dvh max-w-[420px] content-center gap-6 p-6">
			<div>
				<h1 className="num text-[22px] font-bold">Dromos</h1>
				<p className="dim mt-1">Plan, log and judge sprint, agility, jump and throwing sessions, athlete by athlete.</p>
			</div>
			{ended && <p className="border-l-[3px] border-attn pl-3 text-[14px]">{TAKEN_OFF}</p>}
			<PostForm className="grid gap-4">
				<TextField
					label="Email"
					name="email"
					type="email"
					autoComplete="username"
					required
					defaultValue={actionData?.email}
				/>
				<TextField label="Password" name="password" type="password" autoComplete="current-password" required />
				{actionData?.problem && (
					<p className="problem" role="alert">
						{actionData.problem}
					</p>
				)}
				<button className="btn" disabled={busy}>
					{busy ? 'Signing in …' : 'Sign in'}
				</button>
			</PostForm>
			<p className="dim text-[14px]">No sign-in yet? The coach of your club sends you a link.</p>
		</main>
	)
}
