/** The id of a document that is written new, from its name: small letters, digits and dashes; "" for a name without any. */
export const idFrom = (name: string): string =>
	name
		.toLowerCase()
		.normalize('NFD')
		.replace(/\p{M}+/gu, '')
		.replace(/[^a-z0-9]+/g, '-')
		.slice(0, 40)
		.replace(/^-+|-+$/g, '')
