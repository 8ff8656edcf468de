/** Something the person at the terminal can act on: printed as a sentence, without a stack. */
export class PlainError extends Error {}
