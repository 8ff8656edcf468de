import tseslint from 'typescript-eslint'
import { layers } from './layers.js'
import { pure } from './pure.js'

const plugins = { dromos: { rules: { layers, pure } } }

/**
 * What holds the layers, as ESLint configuration that needs no types.
 *
 * @type {import('eslint').Linter.Config[]}
 */
export const boundaries = [
	{
		files: ['{app,server,db,core}/**/*.{ts,tsx}'],
		languageOptions: { parser: /** @type {any} */ (tseslint.parser) },
		// No comment turns the layers off.
		linterOptions: { noInlineConfig: true },
		plugins,
		rules: { 'dromos/layers': 'error' },
	},
	{ files: ['core/**/*.ts'], ignores: ['**/*.test.ts'], plugins, rules: { 'dromos/pure': 'error' } },
]
