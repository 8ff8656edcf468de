import { Link } from 'react-router'
import { todayAt } from '#server/clock'
import { readBenchPeople } from '#server/bench/read-measurements'
import type { Route } from './+types/bench-tool'
import { ContactTool } from '../bench/contact-tool'
import { FilmTool } from '../bench/film-tool'
import { CurveTool, PlantsTool, ThrowTool, TurnTool } from '../bench/jump-turn-throw-tools'
import { AssistedTool, CarriedTool, ResistedTool, StepsTool } from '../bench/running-tools'
import { SprintProfileTool } from '../bench/sprint-profile-tool'
import { BENCH_TOOLS } from '../bench/tools'
import type { ToolProps } from '../bench/tool-page'
import { WicketsTool } from '../bench/wickets-tool'
import { allowed, notFound } from '../request-guard'

const VIEWS: Readonly<Record<string, (props: ToolProps) => React.ReactNode>> = {
	'sprint-profile': SprintProfileTool,
	steps: StepsTool,
	wickets: WicketsTool,
	resisted: ResistedTool,
	assisted: AssistedTool,
	carried: CarriedTool,
	film: FilmTool,
	contact: ContactTool,
	plants: PlantsTool,
	turn: TurnTool,
	curve: CurveTool,
	throw: ThrowTool,
}

export const meta: Route.MetaFunction = ({ params }) => [
	{ title: `${BENCH_TOOLS.find((tool) => tool.id === params.tool)?.name ?? 'Bench'} · Dromos` },
]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'marks:read')
	const tool = BENCH_TOOLS.find((one) => one.id === params.tool)
	if (!tool) throw notFound()
	return { tool, today: todayAt(who.timeZone), ...(await readBenchPeople(scope)) }
}

export default function BenchTool({ loaderData }: Route.ComponentProps) {
	const { tool, people, squads, today } = loaderData
	const View = VIEWS[tool.id]!
	return (
		<>
			<p className="print:hidden">
				<Link className="link inline-flex min-h-[32px] max-lg:min-h-[44px] items-center text-[14px]" to="/bench">
					Bench
				</Link>
			</p>
			<h1>{tool.name}</h1>
			<p className="dim mt-1 print:hidden">{tool.purpose}.</p>
			<View key={tool.id} people={people} squads={squads} today={today} />
		</>
	)
}
