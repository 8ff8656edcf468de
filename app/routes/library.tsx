import { FAMILIES, REGION_NAMES, type Drill, type Region } from '#core/library/types'
import { writeDose, writeParameters } from '#core/progress/write-numbers'
import { readLibrary } from '#db/queries/library'
import type { Route } from './+types/library'
import { signedIn } from '../request-guard'
import { FamilyMark } from '../ui/glyphs'
import { sentences } from '../ui/sentence'

export const meta: Route.MetaFunction = () => [{ title: 'Library · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { scope } = signedIn(context, request)
	const library = await readLibrary(scope)
	return { drills: Object.values(library.drills), ladders: Object.values(library.ladders) }
}

/** How a drill is counted, in words. */
function countingOf(drill: Drill): string {
	const { contacts, cuts, deadStops, metres, throws } = drill.counting
	const said: string[] = []
	if (contacts) {
		const feet = contacts.feet === 'both' ? 'on both feet' : contacts.feet === 'alternating' ? 'left and right in turn' : 'on each leg'
		said.push(contacts.by === 'rep' ? `${contacts.perRep} ${drill.intensity} ${contacts.perRep === 1 ? 'contact' : 'contacts'} a rep, ${feet}` : `${contacts.perStep === 1 ? 'a contact' : `${contacts.perStep} contacts`} every ${contacts.stepLengthLegLengths} leg lengths, ${feet}`)
	}
	if (cuts) said.push(`${cuts.perRep} cut a rep`)
	if (deadStops) said.push(`${deadStops.perRep} dead stop a rep`)
	if (metres) said.push(`metres run, planned ${metres.plannedZone}`)
	if (throws) said.push(throws.sides === 'both' ? '1 throw a rep' : '1 throw a side')
	return said.length > 0 ? said.join('; ') : 'Minutes only'
}

export default function LibraryPage({ loaderData: { drills, ladders } }: Route.ComponentProps) {
	return (
		<>
			<h1>Library</h1>
			<p className="dim mt-1">{drills.length} drills, {ladders.length} ladders. A rung opens when the one below is passed twice running; what else it asks stands beside it.</p>
			<div className="mt-6 grid gap-x-10 gap-y-7 sm:grid-cols-2 lg:grid-cols-4">
				{ladders.map((ladder) => (
					<section key={ladder.id}>
						<h2 className="flex items-center gap-2"><FamilyMark family={ladder.family} label />{ladder.name}</h2>
						<ol className="mt-2 flex list-none flex-col-reverse border-b-2 border-ink">
							{ladder.rungs.map((rung) => (
								<li key={rung.id} className="rule py-1.5"><b>{rung.name}</b> <span className="dim">{writeDose(rung.dose)}</span><span className="dim block text-[13px]">level {rung.level} · {rung.pass.kind === 'quality' ? 'good by eye' : rung.pass.kind === 'contact-ceiling' ? 'contact under the ceiling' : `within ${rung.pass.percent} % of own best`}{rung.gates.some((gate) => gate.kind === 'phase') && ' · in its phase'}</span></li>
							))}
						</ol>
					</section>
				))}
			</div>
			{FAMILIES.map((family) => {
				const own = drills.filter((drill) => drill.family === family)
				return own.length === 0 ? null : (
					<section key={family} className="mt-9">
						<h2 className="flex items-center gap-2 border-b-2 border-ink pb-1 text-[18px] capitalize"><FamilyMark family={family} />{family}</h2>
						<ul>
							{own.map((drill) => (
								<li key={drill.id} className="grid gap-x-7 gap-y-1 border-b border-chalk py-3 sm:grid-cols-[230px_1fr_1fr]">
									<div><b>{drill.name}</b><p className="dim text-[14px]">{drill.intensity} · {writeDose(drill.defaults)}{writeParameters(drill.defaults) && ` · ${writeParameters(drill.defaults)}`}</p></div>
									<div className="text-[14px]"><p>{sentences(drill.cues)}</p><p className="dim">Look for: {sentences([drill.lookFor.join('; ').toLowerCase()])}</p>{drill.faults.map((fault) => <p key={fault.fault} className="dim">{fault.fault}: {fault.correction.charAt(0).toLowerCase() + fault.correction.slice(1)}.</p>)}</div>
									<div className="text-[14px]"><p>{countingOf(drill)}.</p><p className="dim">{Object.keys(drill.regions).length > 0 ? `Loads ${(Object.keys(drill.regions) as Region[]).map((region) => REGION_NAMES[region]).join(', ')}.` : 'Loads nothing in particular.'}</p>{drill.cautions.map((caution) => <p key={caution} className="border-l-[3px] border-ink pl-2">{caution}.</p>)}</div>
								</li>
							))}
						</ul>
					</section>
				)
			})}
		</>
	)
}
