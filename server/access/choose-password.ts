/**
 * Shortest password where it is all that is asked (NIST SP 800-63B-4, 3.1.1.2, from memory: 15 characters), and longest
 * that is taken (at least 64 are asked for there).
 */
export const MIN_PASSWORD = 15
export const MAX_PASSWORD = 200

/** Words most guessed first, from memory of published lists of leaked passwords; a password is not made of these alone. */
const COMMON = [
	'password',
	'passwort',
	'passw0rd',
	'qwertyuiop',
	'qwerty',
	'qwertz',
	'azerty',
	'asdfghjkl',
	'asdfgh',
	'zxcvbnm',
	'yxcvbnm',
	'iloveyou',
	'letmein',
	'welcome',
	'sunshine',
	'princess',
	'football',
	'baseball',
	'basketball',
	'superman',
	'batman',
	'dragon',
	'monkey',
	'shadow',
	'master',
	'michael',
	'jennifer',
	'charlie',
	'admin',
	'administrator',
	'login',
	'trustno',
	'whatever',
	'freedom',
	'computer',
	'secret',
	'changeme',
	'default',
	'dromos',
	'coach',
	'sprint',
	'training',
	'athlete',
	'correcthorsebatterystaple',
	'abcdefghijklmnopqrstuvwxyz',
	'abc',
	'test',
	'hello',
	'love',
	'god',
	'sex',
	'the',
	'my',
	'is',
] // prettier-ignore

/** The same with what stands for letters put back: "P@ssw0rd" is "password". */
const plain = (text: string): string =>
	text
		.normalize('NFKC')
		.toLowerCase()
		.replace(/[@4]/g, 'a')
		.replace(/0/g, 'o')
		.replace(/[1!|]/g, 'l')
		.replace(/3/g, 'e')
		.replace(/[5$]/g, 's')
		.replace(/7/g, 't')

/** The shortest piece that said over and over makes a text. */
function unitOf(text: string): string {
	for (let length = 1; length <= text.length / 2; length++)
		if (
			text ===
			text
				.slice(0, length)
				.repeat(Math.ceil(text.length / length))
				.slice(0, text.length)
		)
			return text.slice(0, length)
	return text
}

/** Each character one on from the last, or the same: "1234567890", "aaaa", "zyxwvu". */
function isRun(text: string): boolean {
	const points = [...text].map((one) => one.codePointAt(0)!)
	// After nine comes nought.
	const steps = points.slice(1).map((point, index) => ((point - points[index]! + 14) % 10) - 4)
	return new Set(steps).size <= 1 && steps.every((step) => Math.abs(step) <= 1)
}

/**
 * What is wrong with a password that somebody chooses; null for one that is taken. Length decides, not kinds of
 * characters; what is guessed first is refused: a common word with figures around it, a piece said over and over, a row of
 * keys or figures, the own address or name.
 *
 * @param about what the person is called: address, name, club
 */
export function passwordProblem(password: string, about: readonly string[]): string | null {
	const length = [...password.normalize('NFKC')].length
	if (length < MIN_PASSWORD)
		return `${length} characters are too few; ${MIN_PASSWORD} or more are expected, such as four words.`
	if (password.length > MAX_PASSWORD) return `At most ${MAX_PASSWORD} characters are expected.`
	const typed = password.normalize('NFKC').toLowerCase()
	const unit = unitOf(typed)
	if (unit.length <= 8 && unit !== typed) return 'It is one piece said over and over. Choose another.'
	const figures = typed.replace(/\D/g, '')
	const rows = typed.match(/\d+|[^\d]+/g) ?? []
	if (rows.every((row) => isRun(row) || row.length <= 2) && figures.length > 0)
		return 'It is a row of figures. Choose another.'
	for (const own of about
		.flatMap((text) => [text, ...text.split('@').slice(0, 1)])
		.map((text) => text.trim().toLowerCase()))
		if (own.length >= 4 && typed.includes(own) && typed.length - own.length < MIN_PASSWORD - 3)
			return 'It is made of your own address or name. Choose another.'
	const words = [...COMMON].sort((one, other) => other.length - one.length)
	for (const read of [typed, plain(password)]) {
		let left = read
		for (const word of words) left = left.replaceAll(read === typed ? word : plain(word), ' ')
		if (left.replace(/[^\p{L}]/gu, '').length < 4) return 'It is made of what is guessed first. Choose another.'
	}
	return null
}
