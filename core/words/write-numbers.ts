import type { Dose, Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import { writeDistance } from './units'

/** A name inside a sentence: "three-point start 10 m", but "A-run 20 m". */
export const inSentence = (name: string): string =>
	/^[A-Z](-|\d)/.test(name) ? name : name.charAt(0).toLowerCase() + name.slice(1)
export const writeSeconds = (value: number): string => `${value.toFixed(2)} s`
export const writePercent = (value: number): string => `${(Math.round(value * 10) / 10).toFixed(1)} %`
export const writeDose = (dose: Dose): string => `${dose.sets}×${dose.reps}`
export const writeShare = (value: number): string => value.toFixed(2)

/** @example writeMark({ kind: 'contact', value: 0.146, method: 'mat' }) // "146 ms" */
export function writeMark(mark: { kind: 'sprint' | 'contact' | 'height' | 'distance'; value: number }): string {
	if (mark.kind === 'sprint') return writeSeconds(mark.value)
	if (mark.kind === 'contact') return `${Math.round(mark.value * 1000)} ms`
	if (mark.kind === 'height') return `${(mark.value * 100).toFixed(1)} cm`
	return `${mark.value.toFixed(2)} m`
}

/** "20 m", "30 cm", "90°", "3 kg": the parameters a drill uses, in one breath. */
export function writeParameters(parameters: Parameters): string {
	const parts: string[] = []
	if (parameters.distanceM !== undefined) parts.push(writeDistance(parameters.distanceM))
	if (parameters.runInM !== undefined) parts.push(`${writeDistance(parameters.runInM)} run-in`)
	if (parameters.heightCm !== undefined) parts.push(`${parameters.heightCm} cm`)
	if (parameters.angleDeg !== undefined) parts.push(`${parameters.angleDeg}°`)
	if (parameters.ballKg !== undefined) parts.push(`${parameters.ballKg} kg`)
	if (parameters.radiusM !== undefined) parts.push(`radius ${parameters.radiusM} m`)
	if (parameters.approachSteps !== undefined)
		parts.push(
			parameters.approachSteps === 0
				? 'standing'
				: `${parameters.approachSteps} ${parameters.approachSteps === 1 ? 'step' : 'steps'}`,
		)
	if (parameters.assistPercent !== undefined) parts.push(`${parameters.assistPercent} % over own top speed`)
	if (parameters.resistPercent !== undefined) parts.push(`${parameters.resistPercent} % speed lost to the pull`)
	if (parameters.effortPercent !== undefined) parts.push(`at ${parameters.effortPercent} %`)
	if (parameters.loadG !== undefined)
		parts.push(parameters.loadG >= 1000 ? `${parameters.loadG / 1000} kg worn` : `${parameters.loadG} g worn`)
	if (parameters.minutes !== undefined) parts.push(`${parameters.minutes} min`)
	return parts.join(', ')
}

/** "Three-point start 20 m" from the drill and what varies; an angle already in the name is not said twice. */
export function writeDrill(drill: Pick<Drill, 'name'>, parameters: Parameters): string {
	const { angleDeg, ...rest } = parameters
	const spoken = drill.name.includes('°') ? rest : { ...rest, ...(angleDeg === undefined ? {} : { angleDeg }) }
	const words = writeParameters(spoken)
	return words === '' ? drill.name : `${drill.name} ${words}`
}

/** A clause as a sentence begins. @example capital('left knee') // "Left knee" */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth']
/** "third"; from the eleventh on in figures. @param place from 1, whole */
export function ordinal(place: number): string {
	const word = ORDINALS[place - 1]
	if (word) return word
	const teen = place % 100 >= 11 && place % 100 <= 13
	return `${place}${teen ? 'th' : (['th', 'st', 'nd', 'rd'][place % 10] ?? 'th')}`
}
