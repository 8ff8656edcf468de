import { useCallback, useEffect, useRef, useState } from 'react'
import { frameAt, playableFormats, storedRateOf, timeOf } from './film-frames'

export interface Film {
	url: string | null
	name: string
	/** Null until it is known, by playing a moment of it or from the coach. */
	storedFps: number | null
	frames: number
	/** The frame on the screen, as the browser says; a mark is set on what is seen, never on what was asked for. */
	frame: number
	/** The frame asked for last; the picture may still be on its way there. */
	asked: number
	problem: string | null
	detecting: boolean
}

const NONE: Film = {
	url: null,
	name: '',
	storedFps: null,
	frames: 0,
	frame: 0,
	asked: 0,
	problem: null,
	detecting: false,
}
/** Slow enough that every frame of a 240 frames-a-second file is shown on a 60 Hz screen. */
const DETECT_AT = 0.1
const DETECT_FRAMES = 24
const DETECT_MS = 4000

/**
 * A film from this device in a video element: opened, its stored rate found, stepped frame by frame.
 * One seek at a time: what is asked for meanwhile is sought when the one before it has arrived.
 */
export function useFilm(video: React.RefObject<HTMLVideoElement | null>) {
	const [film, setFilm] = useState(NONE)
	const wanted = useRef<number | null>(null)
	const seeking = useRef(false)
	const rate = useRef<number | null>(null)
	const patch = useCallback((change: Partial<Film>) => setFilm((now) => ({ ...now, ...change })), [])

	useEffect(
		() => () => {
			if (film.url) URL.revokeObjectURL(film.url)
		},
		[film.url],
	)

	const open = useCallback((file: File) => {
		rate.current = null
		wanted.current = null
		seeking.current = false
		setFilm({ ...NONE, url: URL.createObjectURL(file), name: file.name, detecting: true })
	}, [])

	const setStoredFps = useCallback(
		(fps: number) => {
			rate.current = fps
			patch({ storedFps: fps, frames: Math.max(1, Math.round((video.current?.duration ?? 0) * fps)), detecting: false })
		},
		[patch, video],
	)

	/** Asks for a frame. */
	const show = useCallback(
		(frame: number) => {
			const element = video.current
			if (!element || !rate.current) return
			const last = Math.max(0, Math.round(element.duration * rate.current) - 1)
			wanted.current = Math.min(Math.max(frame, 0), last)
			patch({ asked: wanted.current })
			if (seeking.current) return
			seeking.current = true
			element.currentTime = timeOf(wanted.current, rate.current)
		},
		[patch, video],
	)

	/** So many frames on or back; a held key waits for the picture, so that no frame passes unseen. */
	const step = useCallback(
		(by: number, held = false) => {
			if (held && seeking.current) return
			show((wanted.current ?? 0) + by)
		},
		[show],
	)

	useEffect(() => {
		const element = video.current
		if (!element || !film.url) return
		let stopped = false
		const withFrames = 'requestVideoFrameCallback' in element
		const onFrame = (_: number, { mediaTime }: { mediaTime: number }) => {
			if (stopped) return
			if (rate.current !== null) patch({ frame: frameAt(mediaTime, rate.current) })
			element.requestVideoFrameCallback(onFrame)
		}
		if (withFrames) element.requestVideoFrameCallback(onFrame)
		const onSeeked = () => {
			seeking.current = false
			if (rate.current === null || wanted.current === null) return
			const reached = timeOf(wanted.current, rate.current)
			if (Math.abs(element.currentTime - reached) > 0.3 / rate.current) {
				seeking.current = true
				element.currentTime = reached
			} else if (!withFrames) patch({ frame: wanted.current })
		}
		const onError = () => {
			const formats = playableFormats((type) => element.canPlayType(type))
			patch({
				detecting: false,
				problem: `This browser cannot play ${film.name}. It plays ${formats.join(', ')}: export the film as one of these and open it again.`,
			})
		}
		const onReady = () => {
			void detectRate(element).then((fps) => {
				if (stopped) return
				element.pause()
				if (fps === null)
					patch({ detecting: false, problem: 'The film’s own frame rate could not be found. Type it below.' })
				else setStoredFps(fps)
				if (fps !== null) show(0)
			})
		}
		element.addEventListener('seeked', onSeeked)
		element.addEventListener('error', onError)
		element.addEventListener('loadeddata', onReady, { once: true })
		return () => {
			stopped = true
			element.removeEventListener('seeked', onSeeked)
			element.removeEventListener('error', onError)
			element.removeEventListener('loadeddata', onReady)
		}
	}, [film.url, film.name, patch, setStoredFps, show, video])

	return { film, open, show, step, setStoredFps }
}

/** Plays a moment without sound and reads when frames were shown. */
async function detectRate(element: HTMLVideoElement): Promise<number | null> {
	if (!('requestVideoFrameCallback' in element)) return null
	const times: number[] = []
	element.muted = true
	element.playbackRate = DETECT_AT
	const done = new Promise<void>((resolve) => {
		const timer = setTimeout(resolve, DETECT_MS)
		const onFrame = (_: number, frame: { mediaTime: number }) => {
			times.push(frame.mediaTime)
			if (times.length >= DETECT_FRAMES || element.ended) {
				clearTimeout(timer)
				resolve()
			} else element.requestVideoFrameCallback(onFrame)
		}
		element.requestVideoFrameCallback(onFrame)
	})
	await element.play().catch(() => undefined)
	await done
	return storedRateOf(times)
}
