import { data, redirect } from 'react-router'
import { join, readInvitation } from '#server/access/join'
import type { Route } from './+types/join'
import { notFound, signInCookie } from '../request-guard'
import { TextField } from '../ui/text-field'
import { PostForm } from '../ui/post-form'

export const meta: Route.MetaFunction = () => [{ title: 'Join · Dromos' }]

export async function loader({ params }: Route.LoaderArgs) {
	const found = await readInvitation(params.token, new Date())
	if (!found) throw notFound()
	return { club: found.clubName, role: found.invitation.role }
}

export async function action({ request, params }: Route.ActionArgs) {
	const form = await request.formData()
	const values = { name: String(form.get('name') ?? ''), email: String(form.get('email') ?? '') }
	const result = await join(params.token, { ...values, password: String(form.get('password') ?? '') }, new Date())
	if ('problems' in result) return data({ problems: result.problems, values }, { status: 400 })
	return redirect('/', {
		headers: { 'set-cookie': await signInCookie.serialize(result.token, { expires: result.expiresAt }) },
	})
}

export default function Join({ loaderData, actionData }: Route.ComponentProps) {
	const { problems, values } = actionData ?? {}
	return (
		<main className="mx-auto max-w-[460px] p-6 sm:py-12">
			<p className="num text-[22px] font-bold">Dromos</p>
			<h1 className="mt-6">Join {loaderData.club}</h1>
			<p className="dim mt-2">
				As {loaderData.role === 'athlete' || loaderData.role === 'assistant' ? 'an' : 'a'} {loaderData.role}.
			</p>
			<PostForm className="mt-6 grid gap-4">
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
					hint="Ten characters or more."
					required
				/>
				<button className="btn justify-self-start">Join</button>
			</PostForm>
		</main>
	)
}
