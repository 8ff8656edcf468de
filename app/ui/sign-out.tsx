import { useEffect, useRef, useState } from 'react'
import { Form } from 'react-router'
import { forgetDrafts } from './kept-draft'
import { openDeviceStore } from '../field/device-store'

/** What a form says when the device was seen to; without it nobody is signed out. */
export const CLEARED = { name: 'device', value: 'cleared' }

/** Where the button was that had it. */
const takeFocus = (element: HTMLElement | null) => element?.focus()

/**
 * Signs out and takes the squads' data off this device; what was not sent yet is said first, and stays until it is.
 *
 * @param atOnce it was pressed already, on a page that was not awake
 */
export function SignOut({ className, atOnce = false }: { className: string; atOnce?: boolean }) {
	const form = useRef<HTMLFormElement>(null)
	const cleared = useRef<HTMLInputElement>(null)
	const [unsent, setUnsent] = useState<number | null>(null)
	const leave = async (asked: boolean) => {
		const store = await openDeviceStore()
		const waiting = await store.waitingCount()
		if (waiting > 0 && !asked) return setUnsent(waiting)
		await store.clear()
		forgetDrafts()
		if ('caches' in window) for (const name of await caches.keys()) await caches.delete(name)
		const registration = 'serviceWorker' in navigator ? await navigator.serviceWorker.getRegistration() : undefined
		await registration?.unregister()
		if (cleared.current) cleared.current.value = CLEARED.value
		form.current?.submit()
	}
	useEffect(() => {
		if (atOnce) void leave(false)
	}, [atOnce])
	return (
		<Form
			method="post"
			action="/sign-out"
			ref={form}
			reloadDocument
			onSubmit={(event) => {
				event.preventDefault()
				void leave(false)
			}}
		>
			<input ref={cleared} type="hidden" name={CLEARED.name} defaultValue="" />
			{unsent === null ? (
				<button className={className}>Sign out</button>
			) : (
				<div role="alert" className="mt-2 grid gap-1 border-l-[3px] border-attn pl-3 text-[14px]">
					<p>
						{unsent === 1 ? '1 entry from the field is' : `${unsent} entries from the field are`} only on this device.
					</p>
					<a ref={takeFocus} className="link flex min-h-[44px] items-center" href="/field">
						{unsent === 1 ? 'Send it first' : 'Send them first'}
					</a>
					<button type="button" className="link min-h-[44px] text-left" onClick={() => void leave(true)}>
						Sign out; {unsent === 1 ? 'it waits' : 'they wait'} here for you
					</button>
				</div>
			)}
		</Form>
	)
}
