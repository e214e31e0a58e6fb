import { t } from '@/words'
import { onScopeDispose, type Ref, ref, shallowRef } from 'vue'
import { chosenFiles, type DroppedFile, droppedFiles, hasFiles } from '@/shell/dropped'
import { refuse } from '@/shell/say'

/** Files that come from outside: dropped anywhere on the page, or chosen by key. */
export function useBringing(options: {
  may: () => boolean
  files: Readonly<Ref<HTMLInputElement | null>>
  folder: Readonly<Ref<HTMLInputElement | null>>
}) {
  const { may } = options
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
    if (may()) (folder ? options.folder : options.files).value?.click()
  }
  function chosen(event: Event): void {
    const input = event.target as HTMLInputElement
    const list = input.files === null ? [] : chosenFiles(input.files)
    // The same files may be chosen again.
    input.value = ''
    take(list)
  }
  function take(list: DroppedFile[]): void {
    if (list.length === 0) return refuse(t('bins.useBringing.thereAreNoFilesIn'))
    files.value = list
  }
  return { files, isOver, hover, leave, drop, choose, chosen }
}
