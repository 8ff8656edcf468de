import { data } from 'react-router'
import { pairDevice } from '#server/devices/pair'
import { deviceOfToken, takeReadings } from '#server/devices/take-readings'
import { checkPairRequest, checkReadingsRequest } from '#server/devices/check-requests'
import type { Route } from './+types/api.devices'
import { AWAY, isDatabaseAway, readJson } from '../read-json'

const MAX_CHARACTERS = 400_000

/** What measuring devices speak to, as docs/protocol.md tells: `pair` once, then `readings`. They have no sign-in, but a token each. */
export async function action({ request, params }: Route.ActionArgs) {
	const read = await readJson(request, MAX_CHARACTERS)
	if ('error' in read) return data({ error: read.error }, { status: read.status })
	try {
		if (params.what === 'pair') {
			const checked = checkPairRequest(read.body)
			if ('problem' in checked) return data({ error: checked.problem }, { status: 400 })
			const paired = await pairDevice(
				checked.value.code,
				checked.value.kind,
				checked.value.name,
				request.headers.get('x-client-network') ?? '',
				new Date(),
			)
			return 'problem' in paired ? data({ error: paired.problem }, { status: paired.status }) : data(paired)
		}
		if (params.what !== 'readings') return data({ error: 'pair or readings is expected' }, { status: 404 })
		const device = await deviceOfToken(request.headers.get('authorization'))
		if (!device) return data({ error: 'this device is not paired' }, { status: 401 })
		const checked = checkReadingsRequest(read.body)
		if ('problem' in checked) return data({ error: checked.problem }, { status: 400 })
		const taken = await takeReadings(device, checked.value.sentAt, checked.value.readings, new Date())
		return Array.isArray(taken)
			? data({ serverNow: new Date().toISOString(), answers: taken })
			: data({ error: `${taken.field}: ${taken.reason}` }, { status: 400 })
	} catch (error) {
		if (isDatabaseAway(error)) return data(AWAY, { status: 503 })
		throw error
	}
}
