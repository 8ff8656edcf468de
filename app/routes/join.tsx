import { data, redirect } from 'react-router'
import { join, readInvitation } from '#server/access/join'
import type { Route } from './+types/join'
import { fromOf, notFound, signedInCookies } from '../request-guard'
import { TextField } from '../ui/text-field'
import { PostForm } from '../ui/post-form'
import { formOf } from '../intents'

export const meta: Route.MetaFunction = () => [{ title: 'Join · Dromos' }]

export async function loader({ params }: Route.LoaderArgs) {
	const found = await readInvitation(params.token, new Date())
	if (!found) throw notFound()
	return { club: found.clubName, role: found.invitation.role, isHere: found.invitation.personId !== null }
}

export async function action({ request, params }: Route.ActionArgs) {
	const form = await formOf(request)
	const values = { name: String(form.get('name') ?? ''), email: String(form.get('email') ?? '') }
	const typed = { ...values, password: String(form.get('password') ?? '') }
	const result = await join(params.token, typed, await fromOf(request), new Date())
	if ('problems' in result) return data({ problems: result.problems, values }, { status: 400 })
	return redirect('/', {
		headers: await signedInCookies(result),
	})
}

export default function Join({ loaderData, actionData }: Route.ComponentProps) {
	const { problems, values } = actionData ?? {}
	return (
		<main className="mx-auto max-w-[460px] p-6 sm:py-12">
			<p className="num text-[22px] font-bold">Dromos</p>
			<h1 className="mt-6">{loaderData.isHere ? 'A new password' : `Join ${loaderData.club}`}</h1>
			<p className="dim mt-2">
				{loaderData.isHere
					? `For ${loaderData.club}. You are signed out everywhere else.`
					: `As ${loaderData.role === 'athlete' || loaderData.role === 'assistant' ? 'an' : 'a'} ${loaderData.role}.`}
			</p>
			<PostForm className="mt-6 grid gap-4">
				{!loaderData.isHere && (
					<>
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
					</>
				)}
				<TextField
					label="Password"
					name="password"
					type="password"
					autoComplete="new-password"
					problem={problems?.password}
					hint="Fifteen characters or more; four words are easy to keep."
					required
				/>
				<button className="btn justify-self-start">{loaderData.isHere ? 'Set it and sign in' : 'Join'}</button>
			</PostForm>
		</main>
	)
}
