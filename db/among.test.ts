import { MySqlDialect } from 'drizzle-orm/mysql-core'
import { describe, expect, it } from 'vitest'
import { among } from './among'
import { line } from './schema/sessions'

const written = (values: readonly string[]) => {
	const { sql, params } = new MySqlDialect().sqlToQuery(among(line.drillId, values))
	return { sql, params }
}

describe('a column among values', () => {
	it('is written as one piece where they are nothing but ids, codes and days', () =>
		expect(written(['0ace7808-46eb-4fc5-b246-ba1c820dd4ea', 'standing-start', '2026-03-12', 'a_b'])).toEqual({
			sql: "`line`.`drill_id` in ('0ace7808-46eb-4fc5-b246-ba1c820dd4ea','standing-start','2026-03-12','a_b')",
			params: [],
		}))
	// As it may come from outside: quotes, what the driver would put a value for, blanks, nothing at all.
	it.each(["a' or '1'='1", 'what?', 'a b', '', 'a\\', 'é', '%'])('is left to the driver where one is %j', (odd) =>
		expect(written(['plain', odd])).toEqual({ sql: '`line`.`drill_id` in (?, ?)', params: ['plain', odd] }),
	)
	it('is false where there are none', () => expect(written([])).toEqual({ sql: 'false', params: [] }))
})
