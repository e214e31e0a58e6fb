/** A file as it was dropped or chosen, with its place below the folder that was. */
export interface DroppedFile {
  file: File
  path: string
}

/** More than this is no import. */
export const MOST_FILES = 20_000

/** Whether what is being dragged over a page is files from outside. */
export const hasFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') ?? false

/** Files that were chosen in a dialog. */
export const chosenFiles = (list: FileList): DroppedFile[] =>
  Array.from(list, (file) => ({ file, path: file.webkitRelativePath || file.name }))

/** Every file that was dropped, folders looked through; in the order of their paths. */
export async function droppedFiles(data: DataTransfer): Promise<DroppedFile[]> {
  // Entries are only given out while the event lasts.
  const entries = Array.from(data.items, (item) => item.webkitGetAsEntry()).filter((one) => one !== null)
  const found: DroppedFile[] = []
  // Some programs give files that lie in no folder.
  if (entries.length === 0) return chosenFiles(data.files)
  for (const entry of entries) await walk(entry, found)
  return found.sort((x, y) => (x.path < y.path ? -1 : x.path > y.path ? 1 : 0))
}

async function walk(entry: FileSystemEntry, found: DroppedFile[]): Promise<void> {
  if (found.length > MOST_FILES) return
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject))
    found.push({ file, path: entry.fullPath.replace(/^\//, '') })
  } else if (entry.isDirectory) {
    const reader = (entry as FileSystemDirectoryEntry).createReader()
    // A folder is given a hundred at a time, until none come.
    for (;;) {
      const some = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject))
      if (some.length === 0) break
      for (const one of some) await walk(one, found)
    }
  }
}
