import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'

/**
 * The layer rule: imports point only downwards, app → server → db → core. Core imports nothing of
 * the product outside itself, nothing of the platform, and only the pure packages named here.
 */
const CORE_PACKAGES = ['typebox', '@stdlib/[a-z0-9-]+', 'temporal-polyfill', 'simple-statistics']
const outside = (...layers) => ({
	regex: `^(#(${layers.join('|')})/|(\\.\\./)+(${layers.join('|')})/)`,
	message: 'Imports point only downwards: app → server → db → core.',
})

const layer = (folder, ...forbidden) => ({
	files: [`${folder}/**/*.{ts,tsx}`],
	ignores: ['**/*.test.ts'],
	rules: { 'no-restricted-imports': ['error', { patterns: [outside(...forbidden)] }] },
})

export default tseslint.config(
	{ ignores: ['build/', '.react-router/', 'node_modules/', 'db/migrations/', '.data/', 'test-results/', 'public/'] },
	...tseslint.configs.recommended,
	{
		files: ['**/*.{ts,tsx}'],
		languageOptions: { parserOptions: { projectService: true } },
		rules: {
			'@typescript-eslint/no-floating-promises': 'error',
			'@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: { attributes: false } }],
			'@typescript-eslint/consistent-type-imports': 'error',
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
		},
	},
	{
		files: ['app/**/*.{ts,tsx}'],
		plugins: { 'react-hooks': reactHooks },
		rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
	},
	layer('server', 'app', 'scripts', 'tests'),
	layer('db', 'app', 'server', 'scripts', 'tests'),
	{
		files: ['core/**/*.ts'],
		ignores: ['core/**/*.test.ts'],
		rules: {
			'no-restricted-imports': [
				'error',
				{
					patterns: [
						outside('app', 'server', 'db', 'scripts', 'tests'),
						{
							regex: `^(?!\\.{1,2}/|#core/|(${CORE_PACKAGES.join('|')})$)`,
							message: 'Core imports nothing outside itself but the pure packages named in eslint.config.js.',
						},
					],
				},
			],
			'no-restricted-globals': ['error', 'process', 'window', 'document', 'fetch', 'performance', 'crypto', 'setTimeout', 'setInterval'],
			'no-restricted-syntax': [
				'error',
				{ selector: "NewExpression[callee.name='Date'][arguments.length=0]", message: 'Core has no clock: pass the time in.' },
				{ selector: "MemberExpression[object.name='Date'][property.name='now']", message: 'Core has no clock: pass the time in.' },
				{ selector: "MemberExpression[object.name='Temporal'][property.name='Now']", message: 'Core has no clock: pass the time in.' },
				{ selector: "MemberExpression[object.name='Math'][property.name='random']", message: 'Core has no randomness: pass a seed in.' },
			],
		},
	},
)
