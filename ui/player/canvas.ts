/**
 * A pen for a canvas of that many CSS pixels, sharp on any screen; it draws in CSS pixels, and what was there is gone.
 */
export function penFor(
  element: HTMLCanvasElement | null,
  width: number,
  height: number,
): CanvasRenderingContext2D | null {
  if (element === null || width < 2 || height < 2) return null
  const scale = window.devicePixelRatio || 1
  const [wide, high] = [Math.round(width * scale), Math.round(height * scale)]
  const pen = element.getContext('2d')
  // Another size costs the browser a store of that size; the same one is only wiped.
  if (element.width !== wide || element.height !== high) [element.width, element.height] = [wide, high]
  else {
    pen?.setTransform(1, 0, 0, 1, 0, 0)
    pen?.clearRect(0, 0, wide, high)
  }
  pen?.setTransform(scale, 0, 0, scale, 0, 0)
  return pen
}
