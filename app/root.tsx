import { Links, Meta, Outlet, Scripts, ScrollRestoration, isRouteErrorResponse } from 'react-router'
import { use, useEffect } from 'react'
import type { Route } from './+types/root'
import { guard } from './request-guard'
import { RequestNumber } from './ui/request-number'
import './ui/tokens.css'

export const middleware: Route.MiddlewareFunction[] = [guard]

export function Layout({ children }: { children: React.ReactNode }) {
	useEffect(() => {
		document.documentElement.dataset.awake = ''
	}, [])
	return (
		<html lang="en">
			<head>
				<meta charSet="utf-8" />
				<meta name="viewport" content="width=device-width, initial-scale=1, viewport-fit=cover" />
				<Meta />
				<link rel="icon" href="/favicon.svg" type="image/svg+xml" />
				<link rel="manifest" href="/manifest.webmanifest" />
				<meta name="theme-color" content="#ffffff" />
				<Links />
			</head>
			<body>
				{children}
				<ScrollRestoration />
				<Scripts />
			</body>
		</html>
	)
}

export const meta: Route.MetaFunction = () => [{ title: 'Dromos' }]

export default function Root() {
	return <Outlet />
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
	const missing = isRouteErrorResponse(error) && error.status === 404
	const refused = isRouteErrorResponse(error) && error.status === 403
	const number = use(RequestNumber)
	return (
		<main className="mx-auto max-w-xl p-8">
			<h1>{missing ? 'There is nothing here' : refused ? 'Your role does not allow this' : 'Something went wrong'}</h1>
			<p className="mt-3">
				{missing
					? 'The address is unknown, or it belongs to another club.'
					: refused
						? String(error.data)
						: 'What was saved is safe. What you were typing is kept in this tab: open the page again and go on, or try again in a moment.'}
			</p>
			{!missing && !refused && (
				<p className="dim mt-3" suppressHydrationWarning>
					{number && `In the server’s log it is ${number}: say that to who keeps it.`}
				</p>
			)}
			<p className="mt-5">
				<a className="link" href="/">
					To Today
				</a>
			</p>
		</main>
	)
}
