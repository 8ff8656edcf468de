import { DayPicker } from 'react-day-picker'

const asDate = (day: string) => new Date(`${day}T12:00:00`)
const asDay = (date: Date) =>
	[date.getFullYear(), date.getMonth() + 1, date.getDate()].map((part) => String(part).padStart(2, '0')).join('-')

/** A month to pick a day from; the week begins where it does for whoever looks. */
export default function DayCalendar({
	day,
	min,
	max,
	firstWeekday,
	onPick,
}: {
	day: string | null
	min: string | undefined
	max: string | undefined
	firstWeekday: number
	onPick: (day: string) => void
}) {
	const around = day ?? max ?? min
	return (
		<DayPicker
			mode="single"
			autoFocus
			selected={day ? asDate(day) : undefined}
			defaultMonth={around ? asDate(around) : new Date()}
			weekStartsOn={(firstWeekday % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6}
			disabled={[...(min ? [{ before: asDate(min) }] : []), ...(max ? [{ after: asDate(max) }] : [])]}
			onSelect={(date) => date && onPick(asDay(date))}
			classNames={{
				months: 'relative',
				month_caption: 'flex h-11 items-center font-semibold',
				nav: 'absolute top-0 right-0 flex',
				button_previous: 'flex size-11 items-center justify-center aria-disabled:opacity-30',
				button_next: 'flex size-11 items-center justify-center aria-disabled:opacity-30',
				chevron: 'size-5 fill-ink',
				weekday: 'dim h-8 text-center text-[13px] font-normal',
				day: 'p-0 text-center',
				day_button: 'num size-11 hover:bg-chalk',
				selected: 'bg-ink text-paper',
				today: 'font-bold underline underline-offset-4',
				outside: 'text-ink-2',
				disabled: 'opacity-30',
			}}
		/>
	)
}
