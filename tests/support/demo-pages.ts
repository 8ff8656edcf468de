import type { App } from './app-test'

/** An address of every page, of the demo club. */
export async function addresses(app: App): Promise<string[]> {
	const one = async (sql: string) => String((await app.rows(`${sql} limit 1`))[0]!.id)
	const squad = await one('select id from squad order by name')
	const athlete = await one(`select athlete_id as id from squad_member where squad_id = '${squad}'`)
	const ahead = await one(`select id from session where squad_id = '${squad}' and started_at is null order by day`)
	const held = await one(
		`select id from session where squad_id = '${squad}' and reviewed_at is not null order by day desc`,
	)
	const open = await one('select id from session where started_at is not null and reviewed_at is null order by day')
	const block = await one('select id from block order by start_day desc')
	const own = (kind: string) => one(`select id from library_document where kind = '${kind}'`)
	return [
		...['/', '/squads', '/plan', '/plan/block', `/plan/blocks/${block}`, '/review', '/sessions/new', '/bench'],
		...[
			'/bench/film',
			'/library',
			'/library/schools',
			'/club',
			'/club/data',
			'/club/record',
			'/keys',
			'/you',
			'/sign-out',
		],
		...['ladders/stiffness', 'ladders/shock', 'school', 'list', 'history', 'placing', 'week', 'tests', 'trials'].map(
			(page) => `/squads/${squad}/${page}`,
		),
		...['', '/care'].map((page) => `/athletes/${athlete}${page}`),
		...['', '/flow', '/map', '/card', '/change', `/for/${athlete}`].map((page) => `/sessions/${ahead}${page}`),
		`/sessions/${held}/done`,
		`/sessions/${open}/review`,
		`/library/drills/${await own('drill')}`,
		`/library/ladders/${await own('ladder')}`,
		`/library/themes/${await own('theme')}`,
		'/field',
	]
}
