import { defineConfig } from 'drizzle-kit'

// Only `drizzle-kit generate` is used; it needs no database.
export default defineConfig({ dialect: 'mysql', schema: './db/schema/index.ts', out: './db/migrations' })
