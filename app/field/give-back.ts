import { useState } from 'react'

/**
 * Where the focus was when a dialog opened by itself: it goes back there when the dialog closes. Spread on the dialog's
 * content; a dialog with a trigger of its own does this without help.
 */
export function useGiveBack(): { onCloseAutoFocus: (event: Event) => void } {
	const [opener] = useState(() => (typeof document === 'undefined' ? null : document.activeElement))
	return {
		onCloseAutoFocus: (event) => {
			event.preventDefault()
			if (opener instanceof HTMLElement && opener.isConnected) opener.focus()
		},
	}
}
