import { Link } from 'react-router'
import { type Deed, readDeeds } from '#server/access/read-club-page'
import type { Route } from './+types/club-record'
import { allowed } from '../request-guard'
import { writeMoment } from '../ui/write-moment'

export const meta: Route.MetaFunction = () => [{ title: 'Who did what · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { scope } = allowed(context, request, 'people:write')
	return { deeds: await readDeeds(scope) }
}

const SAYS: Record<Deed, string> = {
	'signed-in': 'signed in on',
	'password-changed': 'changed their password',
	'password-link': 'made a link for a new password of',
	'password-reset': 'set a new password by a link',
	invited: 'made a link for',
	joined: 'joined as',
	'link-withdrawn': 'withdrew a link',
	'role-changed': 'changed the role of',
	'taken-off': 'took off',
	'let-in': 'let in again',
	cleared: 'recorded a clearance of',
	exported: 'took out',
	erased: 'erased an athlete',
	imported: 'took in',
	'notes-kept': 'changed how long words about health are kept:',
}

/** Keys and data of the club: who did what, newest first. */
export default function ClubRecord({ loaderData: { deeds } }: Route.ComponentProps) {
	return (
		<>
			<p className="dim">
				<Link className="link" to="/club">
					Club
				</Link>
			</p>
			<h1 className="mt-1">Who did what</h1>
			<p className="dim mt-1 max-w-[62ch]">
				Sign-ins, roles, links, clearances, and data that went out or came in. Rows are added and never changed; nothing
				of anybody’s health is in them.
			</p>
			<table className="mt-4 w-full max-w-[820px] text-left">
				<thead className="dim text-[13px]">
					<tr>
						<th className="w-[130px] py-1 font-normal">When</th>
						<th className="py-1 font-normal">Who and what</th>
					</tr>
				</thead>
				<tbody>
					{deeds.map((one) => (
						<tr key={one.id} className="border-t border-chalk align-top">
							<td className="num py-1.5 pr-3 whitespace-nowrap" suppressHydrationWarning>
								{writeMoment(one.at)}
							</td>
							<td className="py-1.5">
								<b>{one.by}</b> {SAYS[one.what]} {one.about}
							</td>
						</tr>
					))}
				</tbody>
			</table>
			{deeds.length === 0 && <p className="rule dim mt-2 py-2">Nothing yet.</p>}
		</>
	)
}
