import { REGION_NAMES, type Region } from '#core/vocabulary/words'
import type { Drill } from '#core/vocabulary/drill'
import { writeRest } from '#core/words/rests'
import { writeDose, writeParameters } from '#core/words/write-numbers'
import { may } from '#server/access/roles'
import { keepDrill } from '#server/library/edit-documents'
import { readDrillPage } from '#server/library/read-library-pages'
import type { Route } from './+types/library-drill'
import { keepDocument } from '../keep-document'
import { allowed, notFound, signedIn } from '../request-guard'
import type { Overtaken } from '../ui/meanwhile-note'
import { DrillForm } from '../ui/drill-form'
import { FamilyMark } from '../ui/glyphs'
import { countingOf } from '../ui/library-words'
import { sentences } from '#core/words/sentences'
import { DrillGround } from '../field-map/drill-ground'
import { useUnits } from '../field/units'

export const meta: Route.MetaFunction = () => [{ title: 'Drill · Dromos' }]

/** Both rests of a drill are told, whatever its own dose: a sheet may ask for more sets. */
const TWO_SETS = { sets: 2, reps: 2 }
/** What a new drill starts as; everything can be changed. */
const BLANK: Drill = {
	id: '',
	version: 1,
	name: '',
	family: 'sprint',
	pattern: 'linear',
	legs: 'both',
	reactive: false,
	intensity: 'low',
	counting: {},
	measures: ['quality'],
	defaults: { dose: { sets: 2, reps: 4 }, rest: { repsS: 0, setsS: 60 }, parameters: {}, repS: 5 },
	doses: { 1: { sets: 1, reps: 4 }, 2: { sets: 2, reps: 4 }, 3: { sets: 3, reps: 4 } },
	ranges: {},
	space: { lengthM: 20, widthM: 2 },
	regions: {},
	alternatives: {},
	cues: [],
	lookFor: [],
	faults: [],
	kit: [],
	cautions: [],
}

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = signedIn(context, request)
	const isNew = params.drillId === 'new'
	const page = await readDrillPage(scope, params.drillId, isNew ? BLANK : null)
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
		(value) => keepDrill(who, value, new Date()),
		(id) => `/library/drills/${id}`,
	)
}

export default function DrillPage({ loaderData, actionData }: Route.ComponentProps) {
	const { asRead } = useUnits()
	const { drill, isNew, drills, usedBy, mayWrite } = loaderData
	const nameOf = (id: string) => drills.find((one) => one.id === id)?.name ?? id
	return (
		<>
			<p className="dim">
				<a className="link" href="/library">
					Library
				</a>
			</p>
			<h1 className="mt-1 flex items-center gap-3">
				{!isNew && <FamilyMark family={drill.family} label />}
				{isNew ? 'A new drill' : asRead(drill.name)}
			</h1>
			{!isNew && (
				<div className="mt-5 grid gap-x-10 gap-y-6 lg:grid-cols-[1fr_1fr]">
					<div>
						<p className="text-[19px]">{asRead(sentences(drill.cues))}</p>
						<p className="mt-2">Look for: {asRead(sentences([drill.lookFor.join('; ').toLowerCase()]))}</p>
						{drill.faults.map((fault) => (
							<p key={fault.fault} className="mt-2">
								<b>{fault.fault}:</b> {fault.correction.charAt(0).toLowerCase() + fault.correction.slice(1)}.
							</p>
						))}
						{drill.cautions.map((caution) => (
							<p key={caution} className="mt-2 border-l-[3px] border-ink pl-2.5">
								{asRead(caution)}.
							</p>
						))}
						<DrillGround drill={drill} />
					</div>
					<dl className="grid grid-cols-[130px_1fr] content-start">
						{(
							[
								[
									'Kind',
									`${drill.intensity}${drill.reactive ? ', reactive' : ', planned'}, ${drill.pattern}, ${drill.legs === 'none' ? 'no legs' : `${drill.legs} ${drill.legs === 'one' ? 'leg' : 'legs'}`}`,
								],
								[
									'Dose',
									`${drill.intensity === 'shock' ? 'closed at level 1' : `${writeDose(drill.doses[1])} at level 1`}, ${writeDose(drill.doses[2])} at 2, ${writeDose(drill.doses[3])} at 3${writeRest(drill.defaults.rest, TWO_SETS) ? ` · ${writeRest(drill.defaults.rest, TWO_SETS)}` : ''}${writeParameters(drill.defaults.parameters) ? ` · ${writeParameters(drill.defaults.parameters)}` : ''}`,
								],
								['Counts', countingOf(drill)],
								['Measured by', drill.measures.join(', ')],
								[
									'Kit and space',
									`${drill.kit.join(', ') || 'nothing'} · ${drill.space.lengthM} × ${drill.space.widthM} m${drill.space.runOutM ? `, run-out ${drill.space.runOutM} m` : ''}`,
								],
								['On', usedBy.map((ladder) => ladder.name).join(', ') || 'no ladder'],
							] as const
						).map(([term, words]) => (
							<div key={term} className="contents">
								<dt className="rule dim py-1.5">{term}</dt>
								<dd className="rule py-1.5">{asRead(words)}</dd>
							</div>
						))}
						<dt className="rule dim py-1.5">Loads</dt>
						<dd className="rule py-1.5">
							{Object.keys(drill.regions).length === 0 ? (
								'nothing in particular'
							) : (
								<ul>
									{(Object.entries(drill.regions) as [Region, number][])
										.sort((a, b) => b[1] - a[1])
										.map(([region, load]) => (
											<li key={region} className="flex justify-between gap-4">
												<span>
													{REGION_NAMES[region]} <span className="dim">{['', 'a little', 'some', 'a lot'][load]}</span>
												</span>
												{drill.alternatives[region] && (
													<span className="dim text-right">
														spared by{' '}
														<a className="link" href={`/library/drills/${drill.alternatives[region]}`}>
															{nameOf(drill.alternatives[region]!).toLowerCase()}
														</a>
													</span>
												)}
											</li>
										))}
								</ul>
							)}
						</dd>
					</dl>
				</div>
			)}
			{mayWrite && (
				<details className="mt-8 border-t-2 border-ink pt-2" open={isNew || actionData !== undefined}>
					<summary className="link inline-flex min-h-[44px] items-center">
						{isNew ? 'Write it' : 'Change it for this club'}
					</summary>
					<p className="dim mb-3 max-w-[70ch]">
						{isNew
							? 'A drill of your own stands beside the others at once.'
							: 'The change holds for this club from now on. What was logged keeps the drill as it was.'}
					</p>
					<DrillForm
						key={`${drill.id}/${drill.version}`}
						drill={drill}
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
