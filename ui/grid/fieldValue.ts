import { t } from '@/words'
import type { TakeField } from '@/api/types'

/** What a typed text sets a field to, or a sentence that says why it cannot; the server has the same rules. */
export function valueOf(field: TakeField, text: string): { value: string | boolean } | string {
  const plain = field.type === 'lines' ? text.trim() : text.replaceAll(/\s+/g, ' ').trim()
  switch (field.type) {
    case 'yes_no':
      if (['', 'no', 'n', '0', '-'].includes(plain.toLowerCase())) return { value: false }
      return ['yes', 'y', 'x', '1', '*', field.label.toLowerCase()].includes(plain.toLowerCase())
        ? { value: true }
        : t('grid.fieldValue.isNeitherYesNorNo', [plain])
    case 'number':
      return /^$|^[+-]?\d{1,12}([.,]\d{1,6})?$/.test(plain)
        ? { value: plain.replace(',', '.') }
        : t('grid.fieldValue.isNoNumber', [plain])
    case 'choice': {
      const choice = ['', ...field.choices].find((one) => one.toLowerCase() === plain.toLowerCase())
      return choice === undefined ? t('grid.fieldValue.isNoneOf', [plain, field.choices.join(', ')]) : { value: choice }
    }
    default:
      return { value: field.limit > 0 ? plain.slice(0, field.limit) : plain }
  }
}
