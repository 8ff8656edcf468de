import type { PackAnswer } from '#core/field/pack'
import type { Route } from './+types/field'
import { openDeviceStore, sessionsOn } from '../field/device-store'
import { FieldPage } from '../field/field-page'
import { fetchPacks } from '../field/fetch-packs'

export const meta: Route.MetaFunction = () => [{ title: 'Field · Dromos' }]

/**
 * The field opens from what is on the device; the server is asked beside that, and only waited for when
 * the session is not here yet. No loader on the server: a lost connection must not replace the page.
 */
export async function clientLoader({ request }: Route.ClientLoaderArgs) {
	const store = await openDeviceStore()
	const asked = new URL(request.url).searchParams.get('session')
	const here = asked ? await store.pack(asked) : null
	const fetched = here || (asked === null && (await store.packs()).length > 0) ? null : await fetchPacks(store, asked)
	const [person, lanes, sound, vibration, tick, dusk, gates, feed, notDoubles] = [
		await store.read('person'),
		await store.read('lanes'),
		await store.read('sound'),
		await store.read('vibration'),
		await store.read('tick'),
		await store.read('dusk'),
		await store.read('gates'),
		await store.read('feedSince'),
		await store.read('settled'),
	]
	return {
		asked,
		pack: asked ? await store.pack(asked) : null,
		packs: await sessionsOn(store),
		waiting: await store.waitingCount(),
		person: person ?? (null as PackAnswer['person'] | null),
		settings: {
			lanes: lanes ?? 1,
			sound: sound ?? false,
			vibration: vibration ?? true,
			tick: tick ?? false,
			dusk: dusk ?? false,
			gates: gates ?? [10],
		},
		feedSince: feed ?? null,
		settled: notDoubles ?? [],
		reach: fetched ?? ('not-asked' as const),
	}
}

/** What is tapped never asks the loader again. */
export const shouldRevalidate = ({
	currentUrl,
	nextUrl,
	defaultShouldRevalidate,
}: {
	currentUrl: URL
	nextUrl: URL
	defaultShouldRevalidate: boolean
}) => (currentUrl.search === nextUrl.search ? false : defaultShouldRevalidate)

export function HydrateFallback() {
	return (
		<main className="sun grid min-h-dvh place-content-center bg-paper text-ink">
			<h1 className="sr-only">Field</h1>
			<p className="text-[18px]" role="status">
				Opening the field …
			</p>
		</main>
	)
}

export default function Field({ loaderData }: Route.ComponentProps) {
	return (
		<div className="sun min-h-dvh bg-paper text-ink">
			<FieldPage {...loaderData} />
		</div>
	)
}
