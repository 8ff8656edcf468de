import path from 'node:path'

/**
 * Where a file may import from, by the path an import resolves to: however it is spelled, and whether it
 * brings values or types.
 *
 *     app/routes → app, server, core      app/field → app/field, core       app/workers → app/workers, core
 *     other app  → app, core              server → server, db, core         db → db, core
 *     core/FOLDER → the same folder and those before it in CORE_ORDER
 */

/** Folders of the core, each importing only from those before it. */
export const CORE_ORDER = [
	'lists',
	'vocabulary',
	'words',
	'chance',
	'calendar',
	'library',
	'measure',
	'noise',
	'events',
	'marks',
	'dose',
	'own',
	'rules',
	'care',
	'permit',
	'judge',
	'careers',
	'calc',
	'devices',
	'field',
	'field-map',
	'plan',
	'record',
	'roster',
	'open-data',
]

/** Pure packages: what they give depends on what they are given. */
const CORE_PACKAGES = /^(typebox(\/value)?|temporal-polyfill|simple-statistics|@stdlib\/[a-z0-9-]+)$/

const LAYERS = ['app', 'server', 'db', 'core', 'scripts', 'benchmarks', 'tests', 'lint']
/** Packages that touch the server's world; pages and the phone have no business with them. */
const SERVER_PACKAGES = /^(node:.*|mysql2.*|drizzle-orm.*|express|pino)$/

const within = (/** @type {string} */ file, /** @type {string} */ folder) =>
	file === folder || file.startsWith(`${folder}/`)
const coreFolder = (/** @type {string} */ file) => file.split('/')[1] ?? ''

/**
 * Why a file may not import a path of the project; null when it may.
 *
 * @param {string} from path of the importing file from the project's folder, with forward slashes
 * @param {string} to path the import resolves to, likewise, with or without its ending
 * @returns {string | null}
 */
export function refusal(from, to) {
	const test = /\.(test|spec)\.tsx?$/.test(from)
	const may = (/** @type {string[]} */ ...folders) =>
		folders.some((folder) => within(to, folder)) || (test && within(to, 'tests/support'))
			? null
			: `only ${folders.join(', ')} may be imported here`
	if (within(from, 'core')) {
		if (!within(to, 'core')) return may('core')
		if (test) return null
		const [own, other] = [coreFolder(from), coreFolder(to)]
		if (!CORE_ORDER.includes(own)) return `core/${own} has no place in the order of the core (lint/layers.js)`
		return CORE_ORDER.indexOf(other) <= CORE_ORDER.indexOf(own) && CORE_ORDER.includes(other)
			? null
			: `core/${own} stands before core/${other} in the order of the core (lint/layers.js)`
	}
	if (within(from, 'db')) return may('db', 'core')
	if (within(from, 'server')) return may('server', 'db', 'core')
	if (within(from, 'app/field')) return test ? may('app/field', 'core', 'server') : may('app/field', 'core')
	if (within(from, 'app/workers')) return may('app/workers', 'core')
	if (within(from, 'app/routes') || /^app\/[^/]+$/.test(from)) return may('app', 'server', 'core')
	if (within(from, 'app')) {
		if (test) return may('app', 'server', 'core')
		return within(to, 'app/routes') ? 'routes import parts, never the other way round' : may('app', 'core')
	}
	return null
}

/**
 * The path from the project's folder that a specifier names; a package comes back as null.
 *
 * @param {string} from
 * @param {string} specifier
 * @returns {string | null}
 */
function resolve(from, specifier) {
	const plain = specifier.replace(/[?#].*$/, (rest) => (specifier.startsWith('#') && rest === specifier ? rest : ''))
	if (plain.startsWith('.')) return path.posix.join(path.posix.dirname(from), plain)
	// Vite reads a leading slash as the project's folder.
	if (plain.startsWith('/')) return path.posix.normalize(plain.slice(1))
	const own = /^#(core|db|server)\/(.*)$/.exec(plain)
	return own ? path.posix.normalize(`${own[1]}/${own[2]}`) : null
}

/**
 * What the linter hands a rule.
 *
 * @typedef {{ cwd: string, filename: string, sourceCode: any, report: (found: object) => void }} Context
 */

export const layers = {
	meta: {
		type: 'problem',
		schema: [],
		messages: {
			layer: '{{specifier}}: {{why}}.',
			package: '{{specifier}}: core imports nothing but itself and the pure packages named in lint/layers.js.',
			world: '{{specifier}}: belongs to the server; pages and the phone cannot have it.',
			unclear: 'What is imported here must be written out: a path that is put together escapes the layers.',
			outside: '{{specifier}} leads out of the project.',
		},
	},
	create(/** @type {Context} */ context) {
		const from = path.relative(context.cwd, context.filename).split(path.sep).join('/')
		const layered = LAYERS.slice(0, 4).some((layer) => within(from, layer))
		if (!layered) return {}
		const test = /\.(test|spec)\.tsx?$/.test(from)

		/** @param {any} node @param {string} specifier */
		const check = (node, specifier) => {
			const to = resolve(from, specifier)
			if (to === null) {
				if (/^(file|data|https?):/.test(specifier)) context.report({ node, messageId: 'outside', data: { specifier } })
				else if (test) return
				else if (within(from, 'core') && !CORE_PACKAGES.test(specifier))
					context.report({ node, messageId: 'package', data: { specifier } })
				else if (
					(within(from, 'app/field') || within(from, 'app/workers') || within(from, 'app/ui')) &&
					SERVER_PACKAGES.test(specifier)
				)
					context.report({ node, messageId: 'world', data: { specifier } })
				return
			}
			if (to.startsWith('..') || within(to, 'node_modules'))
				return context.report({ node, messageId: 'outside', data: { specifier } })
			const why = refusal(from, to)
			if (why) context.report({ node, messageId: 'layer', data: { specifier, why } })
		}
		/** A specifier as it stands in the code; one that is put together at run time is reported. @param {any} node @param {any} source */
		const checkSource = (node, source) => {
			if (source?.type === 'Literal' && typeof source.value === 'string') check(node, source.value)
			else if (source?.type === 'TemplateLiteral' && source.expressions.length === 0)
				check(node, source.quasis[0].value.cooked)
			else context.report({ node, messageId: 'unclear' })
		}
		/** @param {any} node */
		const fromSource = (node) => {
			if (node.source) checkSource(node, node.source)
		}
		const metaUrl = (/** @type {any} */ node) =>
			node?.type === 'MemberExpression' && node.object.type === 'MetaProperty' && node.property.name === 'url'
		return {
			ImportDeclaration: fromSource,
			ExportNamedDeclaration: fromSource,
			ExportAllDeclaration: fromSource,
			ImportExpression: fromSource,
			TSImportType: (/** @type {any} */ node) =>
				checkSource(node, node.source ?? node.argument?.literal ?? node.argument),
			TSExternalModuleReference: (/** @type {any} */ node) => checkSource(node, node.expression),
			CallExpression(/** @type {any} */ node) {
				const { callee } = node
				const name = callee.type === 'Identifier' ? callee.name : callee.property?.name
				if (callee.type === 'Identifier' && name === 'require') checkSource(node, node.arguments[0])
				if (callee.type === 'MemberExpression' && callee.object.name === 'require' && name === 'resolve')
					checkSource(node, node.arguments[0])
				// import.meta.glob and import.meta.resolve
				if (callee.type === 'MemberExpression' && callee.object.type === 'MetaProperty')
					checkSource(node, node.arguments[0])
			},
			NewExpression(/** @type {any} */ node) {
				if (node.callee.name === 'URL' && metaUrl(node.arguments[1])) checkSource(node, node.arguments[0])
			},
			Program(/** @type {any} */ node) {
				for (const comment of node.comments ?? []) {
					const reference = /^\/\s*<reference\s+(?:path|types)\s*=\s*["']([^"']+)["']/.exec(comment.value)
					if (reference?.[1]) check(node, comment.value.includes('path') ? `./${reference[1]}` : reference[1])
				}
			},
		}
	},
}
