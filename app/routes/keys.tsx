import type { Route } from './+types/keys'
import { signedIn } from '../request-guard'

export const meta: Route.MetaFunction = () => [{ title: 'Keys · Dromos' }]

export function loader({ context, request }: Route.LoaderArgs) {
	signedIn(context, request)
	return null
}

/** What a key does, where. */
const KEYS: readonly [where: string, keys: readonly [keys: readonly string[], does: string][]][] = [
	[
		'Everywhere',
		[
			[['Tab', 'Shift Tab'], 'to the next thing, to the one before; the first leads past the places to the content'],
			[['Enter', 'Space'], 'press it'],
			[['Esc'], 'close what has opened'],
		],
	],
	['Plan', [[['Alt ←', 'Alt →'], 'on a session nobody has begun: a day earlier, a day later']]],
	[
		'Session builder',
		[
			[['↑', '↓', 'Enter', 'Esc'], 'in the search: through what was found, take it, close it'],
			[['Alt ↑', 'Alt ↓'], 'in an entry: up, down'],
		],
	],
	[
		'Field map',
		[
			[['←', '→', '↑', '↓'], 'on a station: a metre; with Shift five'],
			[['r'], 'on a station: turn it 15°; with Shift the other way'],
		],
	],
	[
		'Review',
		[
			[['j', 'k'], 'to the next open verdict, to the one before'],
			[['a'], 'accept it'],
			[['o'], 'decide otherwise'],
			[['?'], 'say the keys'],
		],
	],
	['What was done, from paper', [[['Enter'], 'to the next athlete, as one goes down a list']]],
	[
		'Field',
		[
			[['0 … 9', '.', 'Backspace', 'Enter'], 'type a number, take a digit back, log it'],
			[['Space'], 'stopwatch: start, and each that passes'],
		],
	],
	[
		'Film',
		[
			[['←', '→'], 'a frame back, a frame on; with Shift ten'],
			[['d', 'o'], 'touchdown, toe-off'],
		],
	],
]

/** Everything that can be done by keys alone, in one place. */
export default function Keys() {
	return (
		<>
			<h1>Keys</h1>
			<p className="mt-1 max-w-[62ch]">Everything can be reached by Tab. These are quicker.</p>
			{KEYS.map(([where, keys]) => (
				<section key={where} className="mt-6 max-w-[720px]">
					<h2>{where}</h2>
					<dl className="mt-1">
						{keys.map(([names, does]) => (
							<div key={does} className="rule grid gap-x-4 py-1.5 sm:grid-cols-[240px_1fr]">
								<dt className="flex flex-wrap items-start gap-1.5">
									{names.map((name) => (
										<kbd key={name} className="border border-ink-2 px-1.5 text-[14px]">
											{name}
										</kbd>
									))}
								</dt>
								<dd>{does}</dd>
							</div>
						))}
					</dl>
				</section>
			))}
		</>
	)
}
