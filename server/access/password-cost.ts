/** Of scrypt, 64 MiB of memory a try (RFC 7914 parameters N, r, p). */
export const COST = { N: 2 ** 16, r: 8, p: 2 }
