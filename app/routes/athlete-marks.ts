import { noteDeed } from '#server/access/change-club'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import { exportMarks } from '#server/record/export-marks'
import type { Route } from './+types/athlete-marks'
import { notFound, signedIn } from '../request-guard'

/** All that was measured of an athlete, for any spreadsheet: theirs to take along, and who reads marks. */
export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = signedIn(context, request)
	if (who.athleteId !== params.athleteId && !may(who.role, 'marks:read')) throw notFound()
	const today = todayAt(who.timeZone)
	const made = await exportMarks(scope, params.athleteId, today, who.timeZone)
	if (!made) throw notFound()
	await noteDeed(scope, who, 'exported', `marks of ${made.name}`, new Date())
	return new Response(made.text, {
		headers: {
			'content-type': 'text/csv; charset=utf-8; header=present',
			'content-disposition': `attachment; filename="marks-${today}.csv"`,
			'cache-control': 'no-store',
		},
	})
}
