import { Link } from 'react-router'
import { longDay } from '#core/calendar/say-day'
import { rangedContacts, metresOf, totalOf } from '#core/dose/dose-count'
import { entryName } from '#core/plan/entry-parts'
import { readSheet } from '#server/sheet/read-sheet'
import { bodiesOf } from '#server/care/read-bodies'
import { todayAt } from '#server/clock'
import { readTargets } from '#server/sheet/read-targets'
import { writeRests, writeWork } from '#core/words/write-work'
import type { Route } from './+types/session-card'
import { BodyLines } from '../ui/body-line'
import { allowed, notFound } from '../request-guard'
import { useUnits } from '../field/units'
import { useLocal } from '../ui/local'

export const meta: Route.MetaFunction = () => [{ title: 'Session card · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const sheet = await readSheet(scope, params.sessionId)
	if (!sheet) throw notFound()
	const targets = await readTargets(scope, sheet)
	return {
		session: sheet.session,
		bodies: await bodiesOf(scope, sheet, todayAt(who.timeZone), who.role),
		kit: [
			...new Set(sheet.athletes.flatMap((athlete) => athlete.lines.flatMap((line) => line.drill?.kit ?? []))),
		].sort(),
		entries: sheet.entries.map((entry) => {
			const lines = sheet.athletes.flatMap((athlete) =>
				athlete.lines
					.filter((line) => line.entryId === entry.id)
					.map((line) => ({
						name: athlete.name,
						blocked: line.blocked ?? (line.over === null ? null : OVER),
						words:
							line.drill && line.drillId ? writeWork({ ...line, drillId: line.drillId }, sheet.drills.of(line)) : '',
						rest: writeRests(line),
						target: targets.get(line.id)?.words ?? '',
						own: targets.get(line.id)?.own.map(({ short }) => short) ?? [],
						// What tops up is ticked off, not measured.
						boxes:
							line.drill?.measures[0] && line.drill.measures[0] !== 'quality' && !entry.tuning?.fill
								? Math.min(8, line.dose.sets * line.dose.reps)
								: 0,
					})),
			)
			return { id: entry.id, part: entry.part, name: entryName(entry, sheet.library), groups: grouped(lines) }
		}),
		doses: sheet.athletes.map((athlete) => ({
			name: athlete.name,
			contacts: totalOf(rangedContacts(athlete.planned)),
			fastMetres: Math.round(metresOf(athlete.planned, ['fast', 'maximal'])),
		})),
	}
}

/** Instead of a line that what was said of the athlete has ended since the sheet was frozen. */
const OVER = 'Over for today'

/** Rows that fit on a page of Letter paper in two columns. */
const PAGE_ROWS = 80

interface CardLine {
	name: string
	blocked: string | null
	words: string
	rest: string
	target: string
	own: string[]
	boxes: number
}

/** Athletes with the same line stand together, so that the card says it once. */
function grouped(
	lines: CardLine[],
): { words: string; rest: string; boxes: number; people: { name: string; target: string }[] }[] {
	const groups = new Map<
		string,
		{ words: string; rest: string; boxes: number; people: { name: string; target: string }[] }
	>()
	for (const line of lines) {
		const words = line.blocked ?? line.words
		const key = `${words}/${line.blocked === null ? line.rest : ''}`
		const group = groups.get(key) ?? {
			words,
			rest: line.blocked === null ? line.rest : '',
			boxes: line.blocked ? 0 : line.boxes,
			people: [],
		}
		group.people.push({
			name: line.name,
			target:
				line.blocked || line.boxes === 0
					? ''
					: [/^[\d.]+ (s|m|cm|ms) or (better|less)/.exec(line.target)?.[0], ...line.own].filter(Boolean).join(', '),
		})
		groups.set(key, group)
	}
	// Who does nothing of it stands last.
	return [...groups.values()].sort((a, b) => Number(a.words === OVER) - Number(b.words === OVER))
}

/** The session on one page for the clipboard, in black and white: lines, targets, and boxes for the marks. */
export default function SessionCard({ loaderData }: Route.ComponentProps) {
	const { time } = useLocal()
	const { asRead } = useUnits()
	const { session, bodies, entries, kit, doses } = loaderData
	// A full card is set smaller, so that it stays one page: smaller letters fit more to a line and more lines to a page.
	const rows =
		entries.reduce(
			(sum, entry) =>
				sum +
				1.5 +
				entry.groups.reduce(
					(own, group) =>
						own + 1 + (group.boxes > 0 ? group.people.length : group.people.length > 6 ? 0 : group.people.length / 4),
					0,
				),
			0,
		) +
		doses.length / 3
	return (
		<div className="card-page">
			<div className="mb-4 flex flex-wrap justify-between gap-3 print:hidden">
				<Link className="btn btn-quiet" to={`/sessions/${session.id}`}>
					Sheet
				</Link>
				<button type="button" className="btn" onClick={() => window.print()}>
					Print, or keep as PDF
				</button>
			</div>
			<div
				className="card-columns"
				style={{ '--card-zoom': Math.max(0.62, Math.min(1, Math.sqrt(PAGE_ROWS / rows))) } as React.CSSProperties}
			>
				<header className="mb-2 flex items-baseline justify-between gap-4 border-b-2 border-ink pb-1">
					<h1 className="text-[22px]!">
						{session.squadName}: {session.title}
					</h1>
					<p className="num text-right text-[13px]">
						{longDay(session.day)}, {time(session.startTime)}
						<br />
						{session.place} · {session.plannedMinutes} min · {session.phase}
					</p>
				</header>
				{bodies.length > 0 && (
					<div className="mb-2 text-[12px] leading-snug">
						<BodyLines bodies={bodies} />
					</div>
				)}
				{entries.map((entry) => (
					<section key={entry.id} className="mb-2 break-inside-avoid">
						<h2 className="border-b border-ink text-[13px]!">
							{asRead(entry.name)}{' '}
							<span className="font-normal">{entry.part !== entry.name && entry.part.toLowerCase()}</span>
						</h2>
						{entry.groups.map((group) => (
							<div key={group.words} className="mt-0.5">
								<p className="text-[11.5px] leading-tight">
									<b>{asRead(group.words)}</b>
									{group.rest !== '' && `, ${group.rest}`}
									{group.boxes === 0 &&
										`: ${group.people.length > 6 && group.words !== OVER ? `${group.people.length} athletes` : group.people.map((person) => person.name).join(', ')}`}
								</p>
								{group.boxes > 0 &&
									group.people.map((person) => (
										<p key={person.name} className="flex items-center gap-1 text-[11px] leading-none">
											<span className="w-[112px] shrink-0 truncate">{person.name}</span>
											<span className="num w-[84px] shrink-0 truncate text-[10px] leading-[15px]">
												{asRead(person.target)}
											</span>
											{Array.from({ length: group.boxes }, (_, index) => (
												<i key={index} className="h-[15px] min-w-0 flex-1 border border-ink" />
											))}
										</p>
									))}
							</div>
						))}
					</section>
				))}
				<section className="break-inside-avoid">
					<h2 className="border-b border-ink text-[13px]!">Planned dose</h2>
					<p className="text-[11px] leading-snug">
						{doses
							.map(
								(dose) =>
									`${dose.name} ${dose.contacts} contacts${dose.fastMetres > 0 ? `, ${dose.fastMetres} m fast` : ''}`,
							)
							.join(' · ')}
					</p>
					<p className="mt-1 text-[11px] leading-snug">
						<b>Kit:</b> {asRead(kit.join(', ')) || 'none'}. <b>Pain:</b> 3 and more spares the region, 5 and more ends
						the day. Head: out at once, professional help.
					</p>
				</section>
			</div>
		</div>
	)
}
