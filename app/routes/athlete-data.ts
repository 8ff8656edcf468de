import { PersonData } from '#core/open-data/person'
import { mayTakeOut, takeOutPerson } from '#server/person/person-data'
import type { Route } from './+types/athlete-data'
import { notFound, signedIn } from '../request-guard'

/** Everything that is kept about an athlete, for whoever may have it, and the schema it keeps to. */
export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who } = signedIn(context, request)
	if (!mayTakeOut(who, params.athleteId)) throw notFound()
	if (params.file === 'schema.json')
		return Response.json(
			{ $schema: 'https://json-schema.org/draft/2020-12/schema', ...PersonData },
			{ headers: { 'content-type': 'application/schema+json' } },
		)
	if (params.file !== 'all.json') throw notFound()
	const taken = await takeOutPerson(who, params.athleteId, new Date())
	if (!taken) throw notFound()
	return Response.json(taken, {
		headers: { 'content-disposition': 'attachment; filename="athlete.json"', 'cache-control': 'no-store' },
	})
}
