/**
 * Offers a drawing of the page as an SVG file that looks the same away from it: colours and fonts that the page's
 * stylesheet gives are written into it.
 */
export function saveSvg(svg: SVGSVGElement, name: string): void {
	const copy = svg.cloneNode(true) as SVGSVGElement
	const style = getComputedStyle(svg)
	const written = (text: string) =>
		text.replace(/var\((--[a-z0-9-]+)\)/g, (_, variable: string) => style.getPropertyValue(variable).trim())
	for (const element of [copy, ...copy.querySelectorAll('*')])
		for (const attribute of ['stroke', 'fill', 'font-family', 'style']) {
			const value = element.getAttribute(attribute)
			if (value?.includes('var(')) element.setAttribute(attribute, written(value))
		}
	const { width, height } = svg.getBoundingClientRect()
	copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
	copy.setAttribute('viewBox', `0 0 ${Math.round(width)} ${Math.round(height)}`)
	copy.style.background = style.getPropertyValue('--color-paper').trim()
	const link = document.createElement('a')
	link.href = URL.createObjectURL(new Blob([new XMLSerializer().serializeToString(copy)], { type: 'image/svg+xml' }))
	link.download = `${name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}.svg`
	link.click()
	setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
