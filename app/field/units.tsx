import { createContext, use } from 'react'
import { type Quantity, quantityIn } from '#core/measure/quantity'
import { type Units, inUnits } from '#core/words/units'

const UnitsContext = createContext<Units>('metric')

/** Everything below is typed and shown in somebody's own units. */
export const UnitsProvider = UnitsContext

/** Whoever looks at the page reads in `units`: `asRead` writes our sentences so, `typed` says how a field is. */
export function useUnits() {
	const units = use(UnitsContext)
	return {
		units,
		asRead: (text: string) => inUnits(text, units),
		typed: (quantity: Quantity) => quantityIn(quantity, units),
	}
}
