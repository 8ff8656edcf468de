import { timingSafeEqual } from 'node:crypto'
import { data, redirect } from 'react-router'
import { makeFirstClub } from '#server/access/join'
import type { Route } from './+types/first'
import { fromOf, notFound, signedInCookies } from '../request-guard'
import { TextField } from '../ui/text-field'
import { PostForm } from '../ui/post-form'
import { formOf } from '../intents'

export const meta: Route.MetaFunction = () => [{ title: 'Your club · Dromos' }]

/** The page exists only for whoever holds the code that the start command printed. */
function checkCode(request: Request): void {
	const wanted = Buffer.from(process.env.SET_UP_CODE ?? '')
	const given = Buffer.from(new URL(request.url).searchParams.get('code') ?? '')
	if (wanted.length === 0 || wanted.length !== given.length || !timingSafeEqual(wanted, given)) throw notFound()
}

export function loader({ request }: Route.LoaderArgs) {
	checkCode(request)
	return null
}

export async function action({ request }: Route.ActionArgs) {
	checkCode(request)
	const form = await formOf(request)
	const text = (name: string) => String(form.get(name) ?? '')
	const values = { club: text('club'), timeZone: text('timeZone'), name: text('name'), email: text('email') }
	const result = await makeFirstClub({ ...values, password: text('password') }, await fromOf(request), new Date())
	if ('problems' in result) return data({ problems: result.problems, values }, { status: 400 })
	return redirect('/squads', {
		headers: await signedInCookies(result),
	})
}

export default function First({ actionData }: Route.ComponentProps) {
	const { problems, values } = actionData ?? {}
	const zone = values?.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone
	return (
		<main className="mx-auto max-w-[560px] p-6 sm:py-12">
			<p className="num text-[22px] font-bold">Dromos</p>
			<h1 className="mt-6">Your club and its first coach</h1>
			<p className="dim mt-2">Everybody else joins later through a link that you send.</p>
			<PostForm className="mt-6 grid gap-4">
				<TextField label="Club" name="club" defaultValue={values?.club} problem={problems?.club} required />
				<TextField
					label="Time zone"
					name="timeZone"
					defaultValue={zone}
					problem={problems?.timeZone}
					hint="Where you train; it decides which day it is."
					required
					suppressHydrationWarning
				/>
				<TextField
					label="Your name"
					name="name"
					autoComplete="name"
					defaultValue={values?.name}
					problem={problems?.name}
					required
				/>
				<TextField
					label="Email"
					name="email"
					type="email"
					autoComplete="username"
					defaultValue={values?.email}
					problem={problems?.email}
					required
				/>
				<TextField
					label="Password"
					name="password"
					type="password"
					autoComplete="new-password"
					problem={problems?.password}
					hint="Fifteen characters or more; four words are easy to keep."
					required
				/>
				<button className="btn justify-self-start">Make the club</button>
			</PostForm>
		</main>
	)
}
