import { useEffect, useRef } from 'react'
import { useLocation } from 'react-router'

/**
 * A page that was led to begins at its heading: whoever listens hears it, and Tab goes on from there. What a page has
 * put the cursor into stays.
 */
export function useHeadingFocus(): void {
	const { pathname } = useLocation()
	const before = useRef(pathname)
	useEffect(() => {
		if (before.current === pathname) return
		before.current = pathname
		const content = document.getElementById('content')
		const heading = content?.querySelector('h1')
		if (!heading || content?.contains(document.activeElement)) return
		heading.tabIndex = -1
		heading.focus({ preventScroll: true })
	}, [pathname])
}
