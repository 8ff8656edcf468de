import { customType, datetime, date, varchar } from 'drizzle-orm/mysql-core'

/** MariaDB's native 16-byte UUID column, a plain string in TypeScript. */
export const uuid = customType<{ data: string; driverData: string }>({ dataType: () => 'uuid' })

/** JSON column: MariaDB stores text with a json_valid check; the driver hands back the parsed value. */
export const jsonOf = <T>(name: string) =>
	customType<{ data: T; driverData: unknown }>({
		dataType: () => 'json',
		toDriver: (value) => JSON.stringify(value),
		fromDriver: (value) => value as T,
	})(name)

/** JSON that is long and seldom read, kept compressed: a fifth of its size. The driver hands back text. */
export const packedJsonOf = <T>(name: string) =>
	customType<{ data: T; driverData: string }>({
		dataType: () => 'longtext compressed character set utf8mb4 collate utf8mb4_bin',
		toDriver: (value) => JSON.stringify(value),
		fromDriver: (value) => JSON.parse(value) as T,
	})(name)

/** UTC instant with milliseconds. */
export const instant = (name: string) => datetime(name, { mode: 'date', fsp: 3 })
/** Local calendar day, "2026-11-23". */
export const day = (name: string) => date(name, { mode: 'string' })
/** Codes compare byte by byte: no case folding, no accent folding, no trailing blanks ignored. */
export const code = <T extends string = string>(name: string, length = 40) =>
	customType<{ data: T; driverData: string }>({
		dataType: () => `varchar(${length}) character set ascii collate ascii_bin`,
	})(name)
export const words = (name: string, length = 200) => varchar(name, { length })
/** What people type and where one spelling is one thing: compared byte by byte, in any script. */
export const exact = (name: string, length: number) =>
	customType<{ data: string; driverData: string }>({
		dataType: () => `varchar(${length}) character set utf8mb4 collate utf8mb4_nopad_bin`,
	})(name)
