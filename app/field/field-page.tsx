import { useCallback, useEffect, useState } from 'react'
import type { PackAnswer } from '#core/field/pack'
import { type DeviceStore, type KeptPack, openDeviceStore, sessionsOn } from './device-store'
import { type Reach, fetchPacks } from './fetch-packs'
import { FieldScreen } from './field-screen'
import { sayStart, weekdayAndTime } from './hour-and-minute'
import { shortDay } from './short-day'
import { UnitsProvider } from './units'
import { TAKEN_OFF } from './signed-out'
import { registerFieldWorker } from './register-worker'
import type { FieldSettings } from './session-panel'

interface Props {
	asked: string | null
	pack: KeptPack | null
	packs: Awaited<ReturnType<typeof sessionsOn>>
	waiting: number
	person: PackAnswer['person'] | null
	settings: FieldSettings
	feedSince: number | null
	settled: string[]
	reach: Reach | 'not-asked'
}

/** One session, or the list of those on this device. */
export function FieldPage(props: Props) {
	const [store, setStore] = useState<DeviceStore | null>(null)
	const [pack, setPack] = useState(props.pack)
	const [person, setPerson] = useState(props.person)
	const [settings, setSettings] = useState(props.settings)
	const [feedSince, setFeedSince] = useState(props.feedSince)
	const [settled, setSettled] = useState(props.settled)
	const [packs, setPacks] = useState(props.packs)
	const [reach, setReach] = useState(props.reach)

	/** Asks the server what has changed since; what is shown then is what the device holds then. */
	const ask = useCallback(
		async (opened: DeviceStore, isShown: () => boolean) => {
			const reached = await fetchPacks(opened, props.asked)
			if (!isShown()) return
			setReach(reached)
			if (reached === 'no-connection' || reached === 'sign-in') return
			const [whose, all, one] = [
				await opened.read('person'),
				await sessionsOn(opened),
				props.asked ? await opened.pack(props.asked) : null,
			]
			if (!isShown()) return
			setPerson(whose ?? null)
			setPacks(all)
			setPack(one)
		},
		[props.asked],
	)

	useEffect(registerFieldWorker, [])
	useEffect(() => {
		let gone = false
		void openDeviceStore().then((opened) => {
			if (gone) return
			setStore(opened)
			// The page does not wait for it.
			void ask(opened, () => !gone)
		})
		return () => {
			gone = true
		}
	}, [ask])

	if (!props.asked)
		return (
			<KeptSessions
				packs={packs}
				waiting={props.waiting}
				person={person}
				reach={reach}
				onAsk={async () => ask(await openDeviceStore(), () => true)}
			/>
		)
	if (!pack) return <NotHere asked={props.asked} reach={reach} />
	if (!store)
		return (
			<p className="p-6 text-[18px]" role="status">
				Opening the device’s store …
			</p>
		)
	return (
		<UnitsProvider value={person?.units ?? 'metric'}>
			<FieldScreen
				key={pack.id}
				store={store}
				sheet={pack.sheet}
				events={pack.events}
				personId={person?.id ?? null}
				settings={settings}
				settled={new Set(settled)}
				feedSince={feedSince}
				onSettings={(change) => {
					setSettings({ ...settings, ...change })
					for (const [key, value] of Object.entries(change))
						void store.write(key as keyof FieldSettings, value as never)
				}}
				onSettle={(what) => {
					setSettled([...settled, what].slice(-500))
					void store.write('settled', [...settled, what].slice(-500))
				}}
				onFeed={(since) => {
					setFeedSince(since)
					void store.write('feedSince', since)
				}}
			/>
		</UnitsProvider>
	)
}

const signIn = (asked: string | null) =>
	`/sign-in?to=${encodeURIComponent(asked ? `/field?session=${asked}` : '/field')}`

const mustSignIn = (reach: Props['reach']) => reach === 'sign-in' || reach === 'signed-out'

/** Why the session that was asked for is not shown. */
const WHY_NOT_HERE: Partial<Record<Props['reach'], string>> = {
	'no-connection':
		'The server cannot be reached, and this session was not opened here before. What was opened before is under Sessions.',
	fetched: 'It belongs to another club, or is no longer there.',
	'signed-out': TAKEN_OFF,
	'not-allowed': 'No session is kept on this device for you.',
}

function NotHere({ asked, reach }: Pick<Props, 'asked' | 'reach'>) {
	return (
		<main className="mx-auto grid max-w-[560px] gap-4 p-6 text-[18px]">
			<h1>
				{mustSignIn(reach)
					? 'Sign in to open this session'
					: reach === 'not-allowed'
						? 'Your role does not log on the field'
						: 'This session is not on this device'}
			</h1>
			<p>{WHY_NOT_HERE[reach] ?? 'What was opened before is under Sessions.'}</p>
			{mustSignIn(reach) && (
				<a className="btn min-h-[64px]" href={signIn(asked)}>
					Sign in
				</a>
			)}
			<a className="btn btn-quiet min-h-[64px]" href="/field">
				Sessions on this device
			</a>
		</main>
	)
}

/** Why no session is kept here. */
const WHY_NONE: Partial<Record<Props['reach'], string>> = {
	'signed-out': TAKEN_OFF,
	'not-allowed': 'Your role does not log on the field.',
	'sign-in': 'Sign in once with a connection, and today’s and the next sessions are kept here.',
	fetched: 'No session in the week ahead.',
}

function KeptSessions({
	packs,
	waiting,
	person,
	reach,
	onAsk,
}: Pick<Props, 'packs' | 'waiting' | 'person' | 'reach'> & { onAsk: () => Promise<void> }) {
	const [asking, setAsking] = useState(false)
	return (
		<main className="mx-auto max-w-[560px] p-4">
			<div className="flex items-center justify-between">
				<h1 className="text-[26px]">Sessions on this device</h1>
				<a className="-mr-2 flex min-h-[64px] items-center px-2 underline" href="/">
					Today
				</a>
			</div>
			{waiting > 0 && (
				<p className="mt-2 border-l-4 border-attn pl-3 text-[16px] font-semibold">
					{waiting} {waiting === 1 ? 'entry is' : 'entries are'} only on this device. Open the session with a connection
					to send {waiting === 1 ? 'it' : 'them'}.
				</p>
			)}
			<ul className="mt-3">
				{packs.map(({ id, session, athletes, fetchedAt }) => (
					<li key={id} className="border-t border-chalk">
						<a className="flex min-h-[72px] items-center justify-between gap-3 py-2" href={`/field?session=${id}`}>
							<span>
								<b className="num block text-[19px]">
									{session.squadName}, {shortDay(session.day)},{' '}
									<span className="whitespace-nowrap">{sayStart(session.startTime)}</span>
								</b>
								<span className="block text-[15px]">
									{session.title} · {athletes} athletes ·{' '}
									<span className="whitespace-nowrap">fetched {weekdayAndTime(fetchedAt)}</span>
								</span>
							</span>
							<span className="text-[24px]" aria-hidden="true">
								›
							</span>
						</a>
					</li>
				))}
			</ul>
			{packs.length === 0 && (
				<p className="mt-3 text-[17px]">
					{WHY_NONE[reach] ?? 'Open this page once with a connection, and today’s and the next sessions are kept here.'}
				</p>
			)}
			<div className="mt-4 grid gap-2">
				{mustSignIn(reach) ? (
					<a className="btn min-h-[64px]" href={signIn(null)}>
						Sign in
					</a>
				) : reach === 'not-allowed' ? null : (
					<button
						type="button"
						className="btn btn-quiet min-h-[64px]"
						disabled={asking}
						onClick={() => {
							setAsking(true)
							void onAsk().finally(() => setAsking(false))
						}}
					>
						{asking ? 'Asking the server …' : 'Fetch them anew'}
					</button>
				)}
			</div>
			<p className="mt-5 text-[14px]">
				{person ? `Kept for ${person.name}, ${person.clubName}. ` : ''}Names and marks stay on this device for a week at
				most, and are taken off when you sign out, here or from another device, or somebody else signs in. To start it
				without the address bar, add this page to the home screen from the browser’s menu.
			</p>
		</main>
	)
}
