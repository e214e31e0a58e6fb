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
  element.width = Math.round(width * scale)
  element.height = Math.round(height * scale)
  const pen = element.getContext('2d')
  pen?.scale(scale, scale)
  return pen
}
