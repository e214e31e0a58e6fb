import { onScopeDispose, ref, shallowRef } from 'vue'
import { chosenFiles, type DroppedFile, droppedFiles, hasFiles } from '@/shell/dropped'
import { refuse } from '@/shell/say'

/** Files that come from outside: dropped anywhere on the page, or chosen by key. */
export function useBringing(may: () => boolean) {
  const files = shallowRef<DroppedFile[] | null>(null)
  const isOver = ref(false)
  let out: ReturnType<typeof setTimeout> | undefined
  onScopeDispose(() => clearTimeout(out))

  function hover(event: DragEvent): void {
    if (!hasFiles(event) || !may()) return
    event.preventDefault()
    if (event.dataTransfer !== null) event.dataTransfer.dropEffect = 'copy'
    clearTimeout(out)
    isOver.value = true
  }
  /** Between two parts of the page it is left and entered again. */
  function leave(): void {
    clearTimeout(out)
    out = setTimeout(() => (isOver.value = false), 80)
  }
  async function drop(event: DragEvent): Promise<void> {
    if (!hasFiles(event) || event.dataTransfer === null || !may()) return
    event.preventDefault()
    isOver.value = false
    take(await droppedFiles(event.dataTransfer))
  }
  function choose(folder: boolean): void {
    if (!may()) return
    const input = document.createElement('input')
    input.type = 'file'
    input.multiple = true
    input.webkitdirectory = folder
    input.addEventListener('change', () => take(chosenFiles(input.files ?? new DataTransfer().files)))
    input.click()
  }
  function take(list: DroppedFile[]): void {
    if (list.length === 0) return refuse('There are no files in it.')
    files.value = list
  }
  return { files, isOver, hover, leave, drop, choose }
}
