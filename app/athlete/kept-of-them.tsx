import { PostForm } from '../ui/post-form'
import { TextField } from '../ui/text-field'

/** All of it as a file, and the way to erase it. */
export function KeptOfThem({
	athleteId,
	mayErase,
	problem,
}: {
	athleteId: string
	mayErase: boolean
	problem: string | undefined
}) {
	return (
		<section>
			<h2>What is kept of them</h2>
			<a className="link inline-flex min-h-[44px] items-center" href={`/athletes/${athleteId}/data/all.json`} download>
				everything as a file (JSON)
			</a>
			{mayErase && (
				<details open={problem !== undefined}>
					<summary className="link inline-flex min-h-[44px] items-center">Erase them</summary>
					<PostForm preventScrollReset className="grid gap-2 pb-2">
						<p className="text-[14px]">
							For good: name, birth date, contact, everything about their health, verdicts and their sign-in go. Marks
							stay without a name. What a phone still has of them is not taken any more.
						</p>
						<TextField label="Their whole name, typed" name="erase" autoComplete="off" problem={problem} />
						<button className="btn btn-quiet justify-self-start text-attn!" name="do" value="erase">
							Erase
						</button>
					</PostForm>
				</details>
			)}
		</section>
	)
}
