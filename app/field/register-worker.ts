/** Lets the field open without the server from the first signed-in page on, and asks for a newer worker each time; browsers allow it on secure addresses only. */
export function registerFieldWorker(): void {
	if (!import.meta.env.PROD || !('serviceWorker' in navigator)) return
	navigator.serviceWorker
		.register('/service-worker.js', { updateViaCache: 'none' })
		.then((registration) => registration.update())
		.catch((error: unknown) => {
			// The program works without it, as long as there is a connection.
			console.error('the field cannot be kept for use without a connection', error)
		})
}
