import { listSchools } from '#server/library/read-library-pages'
import type { Route } from './+types/library-schools'
import { signedIn } from '../request-guard'
import { SchoolNumbersTable, SchoolQuestions } from '../ui/school-questions'

export const meta: Route.MetaFunction = () => [{ title: 'Schools · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { scope } = signedIn(context, request)
	return { schools: await listSchools(scope) }
}

export default function Schools({ loaderData: { schools } }: Route.ComponentProps) {
	return (
		<>
			<p className="dim">
				<a className="link" href="/library">
					Library
				</a>
			</p>
			<h1 className="mt-1">Schools</h1>
			<p className="dim mt-1 max-w-[70ch]">
				Where good coaches disagree, neither side is wrong. A squad follows one bundle, or its own; the choice is made
				on the squad.
			</p>
			<div className="mt-5">
				<SchoolQuestions schools={schools} />
			</div>
			<h2 className="mt-8 mb-2">The numbers</h2>
			<SchoolNumbersTable schools={schools} />
			<p className="dim mt-2 text-[14px]">
				All numbers are house rules. Safety numbers can be tuned inside their bounds and no further.
			</p>
		</>
	)
}
