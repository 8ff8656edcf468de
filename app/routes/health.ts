import { sql } from 'drizzle-orm'
import { database } from '#server/database'

/** Answers when the server and its database both do. */
export async function loader() {
	await database().db.execute(sql`select 1`)
	return new Response('ok', { headers: { 'content-type': 'text/plain', 'cache-control': 'no-store' } })
}
