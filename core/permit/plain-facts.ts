import type { Library } from '../vocabulary/library'
import type { Family, Level } from '../vocabulary/words'
import { type Concluded, type Known, conclude } from './known'

/** What is on record of an athlete for a day as plain data, as it is read once and travels to the browser. */
export interface PlainFacts extends Omit<Known, 'library' | 'levelOf'> {
	levels: Partial<Record<Family, Level>>
}

/** What follows from it. An unknown level is 1. */
export const concludeFor = ({ levels, ...plain }: PlainFacts, library: Library): Concluded =>
	conclude({ ...plain, library, levelOf: (family) => levels[family] ?? 1 })
