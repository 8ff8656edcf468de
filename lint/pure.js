/**
 * The core has no clock, no chance and no world of its own: it may name only the globals that give the same
 * answer each time, and reach the two that also hold a clock or chance only in the plain way that shows
 * which part is meant. An alias, a destructuring or a computed name hides it, so none is let through.
 */
const PLAIN = new Set([
	...['Array', 'ArrayBuffer', 'BigInt', 'Boolean', 'Error', 'Float64Array', 'Infinity', 'Int32Array', 'JSON', 'Map'],
	...['NaN', 'Number', 'Object', 'Promise', 'RangeError', 'RegExp', 'Set', 'String', 'Symbol', 'SyntaxError'],
	...['TypeError', 'Uint8Array', 'Uint32Array', 'WeakMap', 'WeakSet', 'isFinite', 'isNaN', 'parseFloat', 'parseInt'],
	...['encodeURIComponent', 'decodeURIComponent', 'undefined'],
])

/** Whether a reference is the object of a plain member access to an allowed part. @param {any} id @param {(part: string) => boolean} allowed */
const plainMember = (id, allowed) => {
	const { parent } = id
	return parent.type === 'MemberExpression' && parent.object === id && !parent.computed && allowed(parent.property.name)
}

/** new Date(something), Date.parse and Date.UTC; never the time of day. @param {any} id */
const plainDate = (id) => {
	const { parent } = id
	if (parent.type === 'NewExpression' && parent.callee === id)
		return parent.arguments.length > 0 && parent.arguments[0].type !== 'SpreadElement'
	return plainMember(id, (part) => part === 'parse' || part === 'UTC')
}

export const pure = {
	meta: {
		type: 'problem',
		schema: [],
		messages: {
			global: '{{name}}: core names no part of the world it runs in; pass in what is needed.',
			clock: '{{name}}: core has no clock; pass the time in, and name the part of {{name}} that is meant.',
			chance: '{{name}}: core has no chance of its own; pass a seed in, and name the part of {{name}} that is meant.',
			meta: 'import.meta tells where the code runs; core does not know.',
			constructor: '.constructor reaches the function that makes functions; core does not.',
		},
	},
	create(/** @type {import('./layers.js').Context} */ context) {
		/** @param {any} reference */
		const checkGlobal = (reference) => {
			const node = reference.identifier
			const { name } = node
			if (reference.isTypeReference && !reference.isValueReference) return
			if (name === 'Math' && plainMember(node, (part) => part !== 'random')) return
			if (name === 'Date' && plainDate(node)) return
			if (PLAIN.has(name)) return
			const messageId = name === 'Math' ? 'chance' : name === 'Date' ? 'clock' : 'global'
			context.report({ node, messageId, data: { name } })
		}
		/** Temporal comes from a package and brings a clock along. @param {any} variable */
		const checkTemporal = (variable) => {
			for (const { identifier, isTypeReference, isValueReference } of variable.references) {
				if (isTypeReference && !isValueReference) continue
				if (identifier.parent.type === 'TSQualifiedName') continue
				if (!plainMember(identifier, (part) => part !== 'Now'))
					context.report({ node: identifier, messageId: 'clock', data: { name: 'Temporal' } })
			}
		}
		return {
			ImportDeclaration(/** @type {any} */ node) {
				if (node.source.value !== 'temporal-polyfill') return
				for (const specifier of node.specifiers) {
					if (specifier.type !== 'ImportSpecifier' || specifier.imported.name !== 'Temporal')
						context.report({ node: specifier, messageId: 'clock', data: { name: 'Temporal' } })
					else for (const variable of context.sourceCode.getDeclaredVariables(specifier)) checkTemporal(variable)
				}
			},
			ExportNamedDeclaration(/** @type {any} */ node) {
				if (node.source?.value === 'temporal-polyfill')
					context.report({ node, messageId: 'clock', data: { name: 'Temporal' } })
			},
			ExportAllDeclaration(/** @type {any} */ node) {
				if (node.source.value === 'temporal-polyfill')
					context.report({ node, messageId: 'clock', data: { name: 'Temporal' } })
			},
			MetaProperty(/** @type {any} */ node) {
				if (node.meta.name === 'import') context.report({ node, messageId: 'meta' })
			},
			MemberExpression(/** @type {any} */ node) {
				const name = node.computed ? node.property.value : node.property.name
				if (name === 'constructor') context.report({ node, messageId: 'constructor' })
			},
			'Program:exit'() {
				for (const scope of context.sourceCode.scopeManager?.scopes ?? [])
					for (const reference of scope.references) {
						const { resolved } = reference
						if (!resolved || resolved.defs.length === 0) checkGlobal(reference)
					}
			},
		}
	},
}
