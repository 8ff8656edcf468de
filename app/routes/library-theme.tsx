import { QUALITY_OF } from '#core/vocabulary/entry'
import type { Theme, ThemePiece } from '#core/vocabulary/theme'
import { QUALITY_NAMES, QUANTITY_NAMES } from '#core/plan/targets'
import { sayTheme } from '#core/plan/themes'
import { writeDose, writeParameters } from '#core/words/write-numbers'
import { may } from '#server/access/roles'
import { keepTheme } from '#server/library/edit-documents'
import { readThemePage } from '#server/library/read-library-pages'
import type { Route } from './+types/library-theme'
import { keepDocument } from '../keep-document'
import { allowed, notFound, signedIn } from '../request-guard'
import type { Overtaken } from '../ui/meanwhile-note'
import { ThemeForm } from '../ui/theme-form'
import { BLOCK_PHASES, ROLE_WORDS } from '../ui/theme-words'
import { useUnits } from '../field/units'

export const meta: Route.MetaFunction = () => [{ title: 'Theme · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = signedIn(context, request)
	const isNew = params.themeId === 'new'
	const page = await readThemePage(scope, isNew ? null : params.themeId)
	if (!page) throw notFound()
	return { ...page, isNew, mayWrite: may(who.role, 'plan:write') }
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	return keepDocument(
		request,
		(value) => keepTheme(who, value, new Date()),
		(id) => `/library/themes/${id}`,
	)
}

const SECTIONS = [
	['opening', 'Prepares'],
	['pieces', 'About'],
	['kept', 'Kept in a few minutes'],
	['closing', 'Closes'],
] as const satisfies readonly (readonly [keyof Theme, string])[]

export default function ThemePage({ loaderData, actionData }: Route.ComponentProps) {
	const { theme, isNew, ladders, drills, mayWrite } = loaderData
	const turns = BLOCK_PHASES.flatMap((phase) => theme.inBlock[phase] ?? []).length
	return (
		<>
			<p className="dim">
				<a className="link" href="/library">
					Library
				</a>
			</p>
			<h1 className="mt-1">{isNew ? 'A new theme' : theme.name}</h1>
			{!isNew && (
				<>
					<p className="mt-2 max-w-[70ch] text-[17px]">{theme.about}</p>
					<p className="dim mt-1">
						{theme.main === null ? `For ${ROLE_WORDS[theme.role]}.` : sayTheme(theme, QUALITY_NAMES)}{' '}
						{theme.share !== undefined && theme.share < 1 && `Asks ${Math.round(theme.share * 100)} % of a full day. `}
						{theme.main !== null &&
							(turns === 0
								? 'A block gives it no day of its own: it is asked for.'
								: `In a block when the emphasis is ${BLOCK_PHASES.filter(
										(phase) => theme.inBlock[phase] !== undefined,
									).join(', ')}.`)}
					</p>
					<dl className="mt-5 border-b-2 border-ink">
						{SECTIONS.filter(([section]) => theme[section].length > 0).map(([section, title]) => (
							<div key={section} className="rule grid gap-x-6 py-2 sm:grid-cols-[200px_1fr]">
								<dt className="font-bold">{title}</dt>
								<dd>
									<ol>
										{theme[section].map((piece, index) => (
											<li key={index} className="grid gap-x-4 py-0.5 lg:grid-cols-[180px_1fr_180px]">
												<span>{piece.part}</span>
												<What piece={piece} ladders={ladders} drills={drills} />
												<span className="dim text-[14px]">{purposeOf(piece)}</span>
											</li>
										))}
									</ol>
								</dd>
							</div>
						))}
					</dl>
					<p className="dim mt-2 max-w-[75ch] text-[14px]">
						A proposal is made of these pieces in this order, each athlete’s line by their own level, rung and
						permission. What is short of minutes shrinks from the bottom of the list of what matters: what is kept, then
						what comes second.
					</p>
				</>
			)}
			{mayWrite && (
				<details className="mt-8 border-t-2 border-ink pt-2" open={isNew || actionData !== undefined}>
					<summary className="link inline-flex min-h-[44px] items-center">
						{isNew ? 'Write it' : 'Change it for this club'}
					</summary>
					<p className="dim mb-3 max-w-[70ch]">
						Sessions that stand keep what they were made of; the next proposal goes by the change.
					</p>
					<ThemeForm
						key={`${theme.id}/${theme.version}`}
						theme={theme}
						isNew={isNew}
						drills={drills}
						ladders={ladders.filter((ladder) => ladder.path === undefined)}
						problems={actionData?.problems ?? {}}
						overtaken={actionData && 'meanwhile' in actionData ? (actionData.meanwhile as Overtaken) : undefined}
					/>
				</details>
			)}
		</>
	)
}

/** "for m fast": what a piece of a recipe is there for. */
const purposeOf = (piece: ThemePiece): string =>
	!('quantity' in piece) || !piece.quantity
		? ''
		: 'forms' in piece
			? `up to the target, ${QUANTITY_NAMES[piece.quantity]}`
			: QUALITY_NAMES[QUALITY_OF[piece.quantity]]

function What({
	piece,
	ladders,
	drills,
}: { piece: ThemePiece } & Pick<Route.ComponentProps['loaderData'], 'ladders' | 'drills'>) {
	const { asRead } = useUnits()
	const named = (id: string) => drills.find((drill) => drill.id === id)?.name ?? id
	if ('ladderId' in piece)
		return (
			<span>
				ladder{' '}
				<a className="link" href={`/library/ladders/${piece.ladderId}`}>
					{ladders.find((ladder) => ladder.id === piece.ladderId)?.name ?? piece.ladderId}
				</a>
			</span>
		)
	const forms: readonly { drillId: string; level?: number }[] = 'forms' in piece ? piece.forms : [piece]
	return (
		<span>
			{forms.map(({ drillId, level }, index) => (
				<span key={drillId}>
					{index > 0 && (level === forms[index - 1]!.level ? ', by turns with ' : `; from level ${level}: `)}
					<a className="link" href={`/library/drills/${drillId}`}>
						{named(drillId)}
					</a>
				</span>
			))}
			{!('forms' in piece) && (piece.dose || piece.parameters) && (
				<span className="dim">
					{' '}
					{[piece.dose && writeDose(piece.dose), piece.parameters && asRead(writeParameters(piece.parameters))]
						.filter(Boolean)
						.join(', ')}
				</span>
			)}
		</span>
	)
}
