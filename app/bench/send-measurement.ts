import type { MeasurementToSave } from '#core/calc/measurement-to-save'

/** Sends one measurement. Never throws: what went wrong comes back as a sentence, and the tool keeps what was typed. */
export async function sendMeasurement(measurement: MeasurementToSave): Promise<{ kept: true } | { problem: string }> {
	let response: Response
	try {
		response = await fetch('/api/measurements', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(measurement),
		})
	} catch {
		return { problem: 'Not kept: no connection. What is typed stays here; try again when there is one.' }
	}
	if (response.status === 401)
		return { problem: 'Not kept: you are signed out. Sign in again in another tab, then press Keep once more.' }
	const answer = (await response.json().catch(() => null)) as { saved?: string; reason?: string } | null
	if (response.ok && answer?.saved) return { kept: true }
	return { problem: `Not kept: ${answer?.reason ?? 'the server could not. Try again.'}` }
}

/** The reps of an athlete on a day; none where they cannot be asked for: a film is kept without one, too. */
export async function repsOf(athleteId: string, day: string): Promise<{ id: string; words: string }[]> {
	try {
		const response = await fetch(`/api/measurements?${new URLSearchParams({ athlete: athleteId, day }).toString()}`)
		const answer = (await response.json()) as { reps?: { id: string; words: string }[] }
		return answer.reps ?? []
	} catch {
		return []
	}
}
