import { OPEN_KINDS, OpenData } from '#core/open-data/document'
import { isDay } from '#core/calendar/day-count'
import { noteDeed } from '#server/access/change-club'
import { writeCsv, writeJson } from '#server/open-data/export-data'
import type { Route } from './+types/club-data-file'
import { allowed, notFound } from '../request-guard'

/** The club's data as a file, piece by piece, and the schema it keeps to. */
export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { scope, who } = allowed(context, request, 'people:write')
	const [name = '', ending] = params.file.split('.')
	if (params.file === 'schema.json')
		return Response.json(
			{ $schema: 'https://json-schema.org/draft/2020-12/schema', ...OpenData },
			{ headers: { 'content-type': 'application/schema+json' } },
		)
	const asked = new URL(request.url).searchParams
	const [from, to] = [asked.get('from') || '1900-01-01', asked.get('to') || '9999-12-31']
	if (!isDay(from) || !isDay(to)) throw new Response('Days like 2026-03-14 are expected.', { status: 400 })
	const kind = OPEN_KINDS.find((one) => one === name)
	if ((kind && ending === 'csv') || params.file === 'all.json')
		await noteDeed(scope, who, 'exported', params.file, new Date())
	if (kind && ending === 'csv') return file(writeCsv(scope, kind, { from, to }), params.file, 'text/csv')
	if (params.file === 'all.json') return file(writeJson(scope, { from, to }), params.file, 'application/json')
	throw notFound()
}

function file(pieces: AsyncGenerator<string>, name: string, type: string): Response {
	const encoder = new TextEncoder()
	const stream = new ReadableStream<Uint8Array>({
		pull: async (controller) => {
			const { done, value } = await pieces.next()
			if (done) controller.close()
			else controller.enqueue(encoder.encode(value))
		},
		cancel: async () => void (await pieces.return(undefined)),
	})
	return new Response(stream, {
		headers: {
			'content-type': `${type}; charset=utf-8`,
			'content-disposition': `attachment; filename="${name}"`,
			'cache-control': 'no-store',
		},
	})
}
