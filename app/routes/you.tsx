import { data } from 'react-router'
import { type Units, UNITS } from '#core/words/units'
import { setUnits } from '#server/access/change-self'
import type { Route } from './+types/you'
import { signedIn } from '../request-guard'
import { actOn } from '../intents'
import { PostForm } from '../ui/post-form'
import { Said } from '../ui/said'
import { SignOut } from '../ui/sign-out'

export const meta: Route.MetaFunction = () => [{ title: 'You · Dromos' }]

export function loader({ context, request }: Route.LoaderArgs) {
	const { who } = signedIn(context, request)
	return { name: who.name, role: who.role, club: who.clubName, units: who.units }
}

interface Answer {
	of: 'units'
	did?: string
	problem?: string
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = signedIn(context, request)
	return actOn(request, {
		units: async ({ text }) => {
			const set = await setUnits(who, text('units'))
			return 'problem' in set
				? data<Answer>({ of: 'units', problem: set.problem }, { status: 400 })
				: data<Answer>({ of: 'units', did: 'Kept.' })
		},
	})
}

const SAYS: Record<Units, { name: string; example: string }> = {
	metric: { name: 'Metric', example: '2.45 m, 40 cm, 3 kg' },
	imperial: { name: 'Feet, inches, pounds', example: '8 ft 0.5 in, 15.7 in, 6.6 lb' },
}

/** What somebody sets for themselves alone. */
export default function You({ loaderData, actionData }: Route.ComponentProps) {
	const { name, role, club, units } = loaderData
	const of = (form: Answer['of']) => (actionData?.of === form ? actionData : undefined)
	return (
		<>
			<h1>{name}</h1>
			<p className="dim mt-1">
				{role}, {club}
			</p>
			<section className="mt-6 max-w-[560px]">
				<h2>Units</h2>
				<PostForm preventScrollReset className="mt-1" key={units}>
					<input type="hidden" name="do" value="units" />
					<fieldset>
						<legend className="sr-only">Units you read and type</legend>
						{UNITS.map((one) => (
							<label key={one} className="rule flex min-h-[44px] items-center gap-3 py-1">
								<input
									type="radio"
									name="units"
									value={one}
									defaultChecked={one === units}
									className="size-5 accent-act"
								/>
								<b>{SAYS[one].name}</b>
								<span className="num dim">{SAYS[one].example}</span>
							</label>
						))}
					</fieldset>
					<p className="mt-2">
						A distance to run stays as it was laid out: 20 m are 20 m and 40 yd are 40 yd for everybody. Wherever a
						length or a mass is typed, a unit you type with it counts: “16 in”, “40 cm”, “10 yd”, “6 lb”.
					</p>
					<button className="btn mt-3">Set</button>
					<Said answer={of('units')} problem={of('units')?.problem} />
				</PostForm>
			</section>
			<SignOut className="btn btn-quiet mt-7" />
		</>
	)
}
