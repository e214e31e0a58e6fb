import { t } from '@/words'
import { useLocalStorage } from '@vueuse/core'
import type { RoomView } from './view'

/** What the house sees: the reel's picture, nothing, a card with its name, or the test picture. */
export type Curtain = 'picture' | 'blank' | 'card' | 'test'

/** What the desk tells the house beside where the reel is. */
export interface HouseWord {
  production: string
  reel: string
  view: RoomView
  curtain: Curtain
  /** The reel has come to its end. */
  isOver: boolean
  looks: boolean
  /** By which the projector is late, milliseconds. */
  late: number
}

/** What the house says that it shows. */
export interface HouseSeen {
  curtain: Curtain
  clip: string | null
  frame: number | null
  /**
   * Where the picture that is seen begins, ticks, and -1 while none is; at a moment of the desk's clock, milliseconds.
   */
  at: number
  moment: number
  isFull: boolean
}

/** Of each desk there is one house: its name is known to both windows. */
export const houseChannel = (production: string): string => `cartella.house.${production}`

/** How late the projector is, milliseconds, and the screen that was chosen; of this machine. */
export const houseSetting = useLocalStorage('cartella.house', { late: 0, screen: '' })

export interface HouseScreen {
  label: string
  left: number
  top: number
  width: number
  height: number
  isCurrent: boolean
}

interface Details {
  screens: {
    label: string
    availLeft: number
    availTop: number
    availWidth: number
    availHeight: number
  }[]
  currentScreen: unknown
}

/** The machine's screens, where the browser tells and the person lets it (Window Management, W3C); else none. */
export async function machineScreens(): Promise<HouseScreen[]> {
  const ask = (window as unknown as { getScreenDetails?: () => Promise<Details> }).getScreenDetails
  if (ask === undefined) return []
  try {
    const details = await ask.call(window)
    return details.screens.map((one, index) => ({
      label: one.label === '' ? t('screening.room.house.screen', [index + 1]) : one.label,
      left: one.availLeft,
      top: one.availTop,
      width: one.availWidth,
      height: one.availHeight,
      isCurrent: one === details.currentScreen,
    }))
  } catch {
    return []
  }
}

/** The screen on which the house opens: the one that was chosen, else one that the desk is not on. */
export function houseScreen(screens: HouseScreen[], wanted: string): HouseScreen | null {
  return screens.find((one) => one.label === wanted) ?? screens.find((one) => !one.isCurrent) ?? null
}

/** Opens the house's window, or finds the one that is open; null where the browser lets none. */
export function openHouse(address: string, screen: HouseScreen | null): Window | null {
  const place =
    screen === null
      ? 'width=1280,height=760'
      : `left=${screen.left},top=${screen.top},width=${screen.width},height=${screen.height},fullscreen`
  return window.open(address, 'cartella-house', `popup,${place}`)
}

/** The test picture goes round once in so many milliseconds of the wall's clock; it flashes at 0. */
export const TEST_ROUND = 2000

/** How far it is in its round at a moment: 0 to 1. */
export function testPhase(epoch: number): number {
  const into = epoch % TEST_ROUND
  return (into < 0 ? into + TEST_ROUND : into) / TEST_ROUND
}

/** The flash stands for a tenth of a second, so that a slow projector shows it. */
export const isFlash = (phase: number): boolean => phase < 0.05

/** Draws the test picture: a hand that goes round, a scale to read it by, and white at 0. */
export function drawTest(canvas: HTMLCanvasElement, epoch: number): void {
  const pen = canvas.getContext('2d')
  if (pen === null) return
  const { width, height } = canvas
  const phase = testPhase(epoch)
  pen.fillStyle = isFlash(phase) ? '#ffffff' : '#14181b'
  pen.fillRect(0, 0, width, height)
  const [x, y, r] = [width / 2, height / 2, 0.38 * height]
  pen.strokeStyle = pen.fillStyle = isFlash(phase) ? '#14181b' : '#e8e2d4'
  pen.lineWidth = height / 180
  for (let n = 0; n < 40; n++) {
    const turn = (n / 40) * 2 * Math.PI - Math.PI / 2
    const inner = n % 10 === 0 ? 0.86 : 0.94
    pen.beginPath()
    pen.moveTo(x + inner * r * Math.cos(turn), y + inner * r * Math.sin(turn))
    pen.lineTo(x + r * Math.cos(turn), y + r * Math.sin(turn))
    pen.stroke()
  }
  const hand = phase * 2 * Math.PI - Math.PI / 2
  pen.lineWidth = height / 60
  pen.beginPath()
  pen.moveTo(x, y)
  pen.lineTo(x + 0.84 * r * Math.cos(hand), y + 0.84 * r * Math.sin(hand))
  pen.stroke()
  // The edges show whether the projector cuts the picture off.
  pen.lineWidth = height / 180
  pen.strokeRect(width * 0.02, height * 0.02, width * 0.96, height * 0.96)
}
