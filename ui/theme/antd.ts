import { language } from '@/words/language'
import type { ThemeConfig } from 'ant-design-vue/es/config-provider/context'

/** The few words that Ant Design Vue brings along itself. */
export const ownWords = language === 'it' ? (await import('ant-design-vue/es/locale/it_IT')).default : undefined

/** Paper and ink for the parts that Ant Design Vue draws; the same values as tokens.css. */
export const paper: ThemeConfig = {
  token: {
    colorPrimary: '#1F6F5C',
    colorInfo: '#2F5D86',
    colorWarning: '#B8741A',
    colorError: '#B0412E',
    colorSuccess: '#1F6F5C',
    colorText: '#1F2A33',
    colorTextSecondary: '#5C6670',
    colorTextPlaceholder: '#7A7263',
    colorBgBase: '#FFFCF5',
    colorBgContainer: '#FFFCF5',
    colorBgElevated: '#FFFCF5',
    colorBorder: '#C7BAA2',
    colorBorderSecondary: '#DDD3C0',
    fontFamily: '"IBM Plex Sans", sans-serif',
    fontSize: 13,
    borderRadius: 5,
    controlHeight: 28,
    wireframe: false,
    motionDurationMid: '0.12s',
    motionDurationSlow: '0.15s',
  },
}
