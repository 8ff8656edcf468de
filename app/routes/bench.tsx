import { Link } from 'react-router'
import type { Route } from './+types/bench'
import { BENCH_TOOLS } from '../bench/tools'
import { allowed } from '../request-guard'
import { FamilyMark } from '../ui/glyphs'

export const meta: Route.MetaFunction = () => [{ title: 'Bench · Dromos' }]

export function loader({ context, request }: Route.LoaderArgs) {
	allowed(context, request, 'marks:read')
	return null
}

export default function Bench() {
	return (
		<>
			<h1>Bench</h1>
			<p className="dim mt-1 max-w-[640px]">
				Measuring and arithmetic outside a session. Each tool works alone; what it finds can be kept with an athlete.
			</p>
			<ul className="mt-5 gap-x-10 lg:columns-2">
				{BENCH_TOOLS.map((tool) => (
					<li key={tool.id} className="rule break-inside-avoid">
						<Link to={`/bench/${tool.id}`} className="grid min-h-[64px] grid-cols-[34px_1fr] items-center py-2.5">
							<FamilyMark family={tool.family} label />
							<span>
								<b className="num text-[16.5px] underline underline-offset-3 decoration-chalk">{tool.name}</b>
								<span className="dim block text-[14px]">{tool.purpose}</span>
							</span>
						</Link>
					</li>
				))}
			</ul>
		</>
	)
}
