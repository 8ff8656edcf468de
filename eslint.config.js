import reactHooks from 'eslint-plugin-react-hooks'
import tseslint from 'typescript-eslint'
import { boundaries } from './lint/boundaries.js'

// What wants types, promises that nobody waits for, is asked beside this in .oxlintrc.json: it is twelve times as fast there.
export default tseslint.config(
	{
		ignores: [
			'build/',
			'.commands/',
			'.react-router/',
			'node_modules/',
			'db/migrations/',
			'.data/',
			'test-results/',
			'public/',
			'.stryker-tmp/',
		],
	},
	...tseslint.configs.recommended,
	{
		files: ['**/*.{ts,tsx}'],
		rules: {
			'@typescript-eslint/consistent-type-imports': 'error',
			// An import of types alone that is not called one still loads its file.
			'@typescript-eslint/no-import-type-side-effects': 'error',
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
		},
	},
	{
		files: ['app/**/*.{ts,tsx}'],
		plugins: { 'react-hooks': reactHooks },
		rules: { 'react-hooks/rules-of-hooks': 'error', 'react-hooks/exhaustive-deps': 'error' },
	},
	.../** @type {any[]} */ (boundaries),
)
