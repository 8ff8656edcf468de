import { dropOffLimit } from '#core/progress/read-fall'
import { writeDrill } from '#core/progress/write-numbers'
import type { LogEvent } from '#core/events/schema'
import { may } from '#server/access/roles'
import { readSquad } from '#db/queries/squads'
import { readSheet } from '#server/sheet/read-sheet'
import { readTargets } from '#server/sheet/read-targets'
import type { Route } from './+types/field'
import { FieldScreen } from '../field/field-screen'
import type { FieldLine, FieldSheet } from '../field/field-sheet'
import { notFound, signedIn } from '../request-guard'

export const meta: Route.MetaFunction = () => [{ title: 'Field · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = signedIn(context, request)
	if (!may(who.role, 'marks:write') && !may(who.role, 'marks:write-today')) throw new Response('Your role does not log on the field.', { status: 403 })
	const sheet = await readSheet(scope, params.sessionId)
	const squad = sheet && (await readSquad(scope, sheet.session.squadId))
	if (!sheet || !squad) throw notFound()
	const targets = await readTargets(scope, sheet)
	const school = sheet.library.schools[squad.schoolId]
	if (!school) throw new Error(`school ${squad.schoolId} is not in the library`)
	const field: FieldSheet = {
		session: { id: sheet.session.id, title: sheet.session.title, squadName: sheet.session.squadName, day: sheet.session.day },
		entries: sheet.entries.map((entry) => ({ id: entry.id, part: entry.part, name: entry.ladderId ? (sheet.library.ladders[entry.ladderId]?.name ?? entry.part) : (sheet.library.drills[entry.drillId]?.name ?? entry.part) })),
		athletes: sheet.athletes.map(({ id, name }) => ({ id, name })),
		lines: sheet.athletes.flatMap((athlete) => athlete.lines.map((line): FieldLine => {
			const measured = line.drill?.measures[0]
			return {
				id: line.id, entryId: line.entryId, athleteId: athlete.id, words: line.drill ? writeDrill(line.drill, line.parameters) : '', drillName: line.drill?.name ?? '',
				logs: measured && measured !== 'quality' ? measured : 'done', family: line.drill?.family ?? 'prepare', dose: line.dose, parameters: line.parameters, restS: line.restS,
				target: targets.get(line.id)?.words ?? '', bests: targets.get(line.id)?.bests ?? {}, cautions: line.drill?.intensity === 'shock' ? line.drill.cautions : [],
				cues: line.drill?.cues ?? [], lookFor: line.drill?.lookFor ?? [], blocked: line.blocked, dropOffPercent: line.drill ? dropOffLimit(measured && measured !== 'quality' ? measured : 'sprint', line.drill, school) : 0,
			}
		})),
	}
	// Another person's pain reports stay with coach and clinician.
	const readable = sheet.events.filter((event) => may(who.role, 'pain:read') || !(event.type === 'observation' && event.kind === 'pain'))
	const events: LogEvent[] = readable.map(({ authorId: _author, receivedAt: _received, counts: _counts, ...event }) => event as LogEvent)
	return { field, events }
}

export default function Field({ loaderData }: Route.ComponentProps) {
	return <div className="sun min-h-dvh bg-paper text-ink"><FieldScreen sheet={loaderData.field} events={loaderData.events} /></div>
}
