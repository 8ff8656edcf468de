import { useState } from 'react'

/**
 * The text of a field whose page may draw what was typed later than the key: the text stands there at once, and gives
 * way only to a value that comes from elsewhere.
 *
 * @param value as the page has it
 * @param read what a text stands for
 * @param show a value as text
 */
export function useTyped<T extends string | number | undefined>(
	value: T,
	read: (text: string) => T,
	show: (value: T) => string,
): [text: string, type: (text: string) => void] {
	const [typed, setTyped] = useState<{ text: string; passed: readonly T[] }>({ text: show(value), passed: [] })
	const { text, passed } = typed
	const hasArrived = read(text) === value
	// The page is where the keys have led: a value of before would be somebody else's from here on.
	if (hasArrived && passed.length > 0) setTyped({ text, passed: [] })
	return [
		hasArrived || passed.includes(value) ? text : show(value),
		(next) => setTyped((now) => ({ text: next, passed: [...now.passed, value, read(now.text)] })),
	]
}
