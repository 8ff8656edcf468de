import { data } from 'react-router'
import type { PackAnswer } from '#core/field/pack'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import { readPack, sessionsForDevice } from '#server/field/read-pack'
import { scopeOf } from '#server/database'
import { freshenLines } from '#server/sheet/rewrite-upcoming'
import type { Route } from './+types/api.field'
import { maybeWho, wasEnded } from '../request-guard'

/**
 * The sessions a device holds: today's, the next ones, and one more that is asked for by name. With a 401 it says whether
 * the sign-in was ended: what the device holds is then no longer for who has it in hand.
 */
export async function loader({ context, request }: Route.LoaderArgs) {
	const who = maybeWho(context)
	if (!who) return data({ error: 'sign in again', ended: await wasEnded(context) }, { status: 401 })
	if (!may(who.role, 'marks:write') && !may(who.role, 'marks:write-today'))
		return data({ error: 'Your role does not log on the field.' }, { status: 403 })
	const scope = scopeOf(who.clubId)
	const now = new Date()
	const today = todayAt(who.timeZone, now)
	await freshenLines(who.clubId, today, now)
	const asked = new URL(request.url).searchParams.get('session')
	const only = new URL(request.url).searchParams.get('only') !== null
	const ids =
		only && asked
			? [asked]
			: [...new Set([...(asked ? [asked] : []), ...(await sessionsForDevice(scope, who.role, today, now))])]
	const packs: PackAnswer['packs'] = []
	for (const id of ids.filter((id) => /^[0-9a-f-]{36}$/i.test(id))) {
		const pack = await readPack(scope, id, who.role, today)
		if (pack) packs.push(pack)
	}
	const answer: PackAnswer = {
		person: { id: who.personId, name: who.name, role: who.role, clubName: who.clubName, units: who.units },
		serverNow: now.toISOString(),
		today,
		packs,
	}
	return data(answer, { headers: { 'cache-control': 'no-store' } })
}
