import { theme, type ThemeConfig } from 'antd'
import { useSyncExternalStore } from 'react'

export type ThemeName = 'light' | 'dark'
const KEY = 'border.theme'
const listeners = new Set<() => void>()

/** The person's choice, else what the system prefers. */
function currentTheme(): ThemeName {
  const chosen = localStorage.getItem(KEY)
  if (chosen === 'light' || chosen === 'dark') return chosen
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light'
}

export function applyTheme(name: ThemeName = currentTheme()): void {
  document.documentElement.dataset.theme = name
}

export function chooseTheme(name: ThemeName): void {
  localStorage.setItem(KEY, name)
  applyTheme(name)
  listeners.forEach((tell) => tell())
}

export function useTheme(): ThemeName {
  return useSyncExternalStore((tell) => {
    listeners.add(tell)
    return () => listeners.delete(tell)
  }, currentTheme)
}

const inks = {
  light: {
    act: '#6b2c5c',
    actInk: '#ffffff',
    sheet: '#faf8f4',
    raised: '#ffffff',
    ink: '#22272d',
    soft: '#565b62',
    rule: '#d8d3c8',
    edge: '#8b8577',
    open: '#1f766f',
    closing: '#8a5509',
    late: '#a2382a',
    warningBg: '#f6ecd8',
    errorBg: '#f6e3df',
  },
  dark: {
    act: '#d39fc4',
    actInk: '#26101f',
    sheet: '#232422',
    raised: '#2c2d2a',
    ink: '#ecebe6',
    soft: '#b3b1a9',
    rule: '#42433f',
    edge: '#8f8a7e',
    open: '#6cc4ba',
    closing: '#e0ab5c',
    late: '#ee9384',
    warningBg: '#3d3222',
    errorBg: '#47302b',
  },
} as const

/** The component library in the product's own look; the same colours as theme.css. */
export function themeConfig(name: ThemeName): ThemeConfig {
  const c = inks[name]
  return {
    algorithm: name === 'dark' ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      colorPrimary: c.act,
      colorInfo: c.act,
      colorLink: c.act,
      colorSuccess: c.open,
      colorWarning: c.closing,
      colorError: c.late,
      colorWarningBg: c.warningBg,
      colorErrorBg: c.errorBg,
      colorTextBase: c.ink,
      colorBgBase: c.sheet,
      colorBgContainer: c.raised,
      colorBgElevated: c.raised,
      colorTextSecondary: c.soft,
      colorTextDescription: c.soft,
      colorTextPlaceholder: c.soft,
      colorBorder: c.edge,
      colorBorderSecondary: c.rule,
      colorSplit: c.rule,
      colorTextLightSolid: c.actInk,
      borderRadius: 3,
      fontFamily: "'Source Sans 3 Variable', sans-serif",
      fontSize: 15,
      controlHeight: 34,
      boxShadow: 'none',
      boxShadowSecondary: '0 6px 24px rgb(0 0 0 / 18%)',
      motion: !matchMedia('(prefers-reduced-motion: reduce)').matches,
    },
    components: {
      Button: { primaryShadow: 'none', defaultShadow: 'none', fontWeight: 600 },
      Alert: { withDescriptionPadding: '10px 14px', defaultPadding: '7px 12px' },
      Table: { headerBg: c.sheet, cellPaddingBlockSM: 6 },
      Segmented: { itemSelectedBg: c.act, itemSelectedColor: c.actInk, trackBg: c.raised },
    },
  }
}
