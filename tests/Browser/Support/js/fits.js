// What of a page cannot be got at in this window: reached by no scrolling, or cut off by what it stands in.
const wide = document.documentElement.clientWidth
const high = window.innerHeight
const cut = []
if (document.documentElement.scrollWidth > wide + 1)
    cut.push(`the page is ${document.documentElement.scrollWidth - wide} pixels wider than the window`)
const EDGE = 3
for (const one of document.querySelectorAll(
    'button, a[href], input, select, textarea, [role=button], [role=tab], [role=option]',
)) {
    const box = one.getBoundingClientRect()
    const style = getComputedStyle(one)
    if (box.width < 2 || box.height < 2 || style.visibility === 'hidden' || style.opacity === '0') continue
    if (one.closest('[inert], [aria-hidden=true]')) continue
    let [isFreeX, isFreeY, why] = [false, false, '']
    for (let around = one.parentElement; around !== null && why === ''; around = around.parentElement) {
        const { overflowX, overflowY, position } = getComputedStyle(around)
        const frame = around.getBoundingClientRect()
        // It goes along with what is scrolled beside it.
        if (around.dataset.follows !== undefined) isFreeY = true
        if (/auto|scroll/.test(overflowX)) isFreeX = true
        else if (
            /hidden|clip/.test(overflowX) &&
            !isFreeX &&
            (box.left < frame.left - EDGE || box.right > frame.right + EDGE)
        )
            why = `sideways in .${around.className}`
        if (/auto|scroll/.test(overflowY)) isFreeY = true
        else if (
            /hidden|clip/.test(overflowY) &&
            !isFreeY &&
            (box.top < frame.top - EDGE || box.bottom > frame.bottom + EDGE)
        )
            why = `up or down in .${around.className}`
        if (position === 'fixed') break
    }
    if (why === '' && !isFreeX && (box.left < -EDGE || box.right > wide + EDGE)) why = 'beside the window'
    if (why === '' && !isFreeY && (box.top < -EDGE || box.bottom > high + EDGE)) why = 'above or below the window'
    if (why !== '') cut.push(`${one.outerHTML.slice(0, 110)} ${why}`)
}
return cut
