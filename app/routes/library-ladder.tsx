import type { Ladder } from '#core/vocabulary/ladder'
import { inSentence, writeDose } from '#core/words/write-numbers'
import { may } from '#server/access/roles'
import { keepLadder } from '#server/library/edit-documents'
import { readLadderPage } from '#server/library/read-library-pages'
import { writeAmount, writeRests, writeWhat, writeWorn } from '#core/words/write-work'
import type { Route } from './+types/library-ladder'
import { keepDocument } from '../keep-document'
import { allowed, notFound, signedIn } from '../request-guard'
import { FamilyMark } from '../ui/glyphs'
import type { Overtaken } from '../ui/meanwhile-note'
import { LadderForm } from '../ui/ladder-form'
import { gateWords, passWords } from '../ui/library-words'
import { useUnits } from '../field/units'

export const meta: Route.MetaFunction = () => [{ title: 'Ladder · Dromos' }]

const BLANK: Ladder = { id: '', version: 1, name: '', family: 'plyometric', about: '', rungs: [] }

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = signedIn(context, request)
	const isNew = params.ladderId === 'new'
	const page = await readLadderPage(scope, params.ladderId, isNew ? BLANK : null)
	if (!page) throw notFound()
	return {
		...page,
		isNew,
		mayWrite: may(who.role, 'plan:write'),
	}
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	return keepDocument(
		request,
		(value) => keepLadder(who, value, new Date()),
		(id) => `/library/ladders/${id}`,
	)
}

export default function LadderPage({ loaderData, actionData }: Route.ComponentProps) {
	const { asRead } = useUnits()
	const { ladder, isNew, ladders, drills, mayWrite } = loaderData
	const nameOf = (id: string) => drills.find((drill) => drill.id === id)?.name ?? id
	return (
		<>
			<p className="dim">
				<a className="link" href="/library">
					Library
				</a>
			</p>
			<h1 className="mt-1 flex items-center gap-3">
				{!isNew && <FamilyMark family={ladder.family} label />}
				{isNew ? 'A new ladder' : ladder.name}
			</h1>
			{!isNew && (
				<>
					<p className="mt-2 max-w-[70ch] text-[17px]">{ladder.about}</p>
					<ol className="mt-5 flex list-none flex-col-reverse border-b-2 border-ink">
						{ladder.rungs.map((rung, index) => {
							const gates = rung.gates.map((gate) => gateWords(gate, ladders)).filter((words) => words !== null)
							return (
								<li
									key={rung.id}
									className="rule grid gap-x-6 gap-y-0.5 py-2.5 sm:grid-cols-[40px_1fr_130px_260px]"
									style={{ paddingLeft: `${Math.min(index, 12) * 6}px` }}
								>
									<span className="dim num">{index + 1}</span>
									<span>
										<b>{asRead(rung.name)}</b>{' '}
										<a
											className="link text-[13.5px]"
											href={`/library/drills/${rung.drillId}`}
											aria-label={`the drill: ${nameOf(rung.drillId)}`}
										>
											the drill
										</a>
										{rung.pieces && (
											<span className="block text-[14px]">{writeWhat(rung, (id) => ({ name: nameOf(id) }))}</span>
										)}
										{rung.wornAt && <span className="block text-[14px]">Worn {writeWorn(rung.wornAt)}</span>}
										{rung.turns && (
											<span className="block text-[14px]">
												Week by week:{' '}
												{rung.turns.map(({ name, parameters }) => `${name} ${parameters.assistPercent} %`).join(', ')}
											</span>
										)}
										{rung.variations && (
											<span className="dim block text-[13.5px]">
												Variations: {rung.variations.map((one) => inSentence(one.name)).join(', ')}
											</span>
										)}
									</span>
									<span className="num">
										{rung.pieces ? `${writeAmount(rung)},` : writeDose(rung.dose)}{' '}
										<span className="dim text-[13.5px]">{writeRests(rung)}</span>
									</span>
									<span className="text-[14px]">
										{passWords(rung)}
										<span className="dim block text-[13.5px]">
											{[
												`level ${rung.level}`,
												...gates,
												...(rung.marksLevel ? [`proposes level ${rung.marksLevel}`] : []),
											].join(' · ')}
										</span>
									</span>
								</li>
							)
						})}
					</ol>
					<p className="dim mt-2 text-[14px]">
						From the bottom up. A rung is passed twice running; what is beyond the school is gone past and listed as
						closed.
					</p>
				</>
			)}
			{mayWrite && (
				<details className="mt-8 border-t-2 border-ink pt-2" open={isNew || actionData !== undefined}>
					<summary className="link inline-flex min-h-[44px] items-center">
						{isNew ? 'Write it' : 'Change it for this club'}
					</summary>
					<p className="dim mb-3 max-w-[70ch]">
						{isNew
							? 'From the easiest rung to the hardest.'
							: 'Rungs keep their place in everybody’s history: they can be renamed, moved and added to, not taken away.'}
					</p>
					<LadderForm
						key={`${ladder.id}/${ladder.version}`}
						ladder={ladder}
						isNew={isNew}
						drills={drills}
						problems={actionData?.problems ?? {}}
						overtaken={actionData && 'meanwhile' in actionData ? (actionData.meanwhile as Overtaken) : undefined}
					/>
				</details>
			)}
		</>
	)
}
