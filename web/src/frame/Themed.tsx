import { ConfigProvider, theme, type ThemeConfig } from 'antd'
import { nonce } from '../nonce.ts'
import { useTheme, type ThemeName } from '../theme.ts'

/** The component library in the product's own look, for what stands inside: it comes with the first part that needs it. */
export const Themed = ({ children }: { children: React.ReactNode }) => (
  <ConfigProvider theme={themeConfig(useTheme())} csp={{ nonce }}>
    {children}
  </ConfigProvider>
)

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

/** The same colours as theme.css. */
function themeConfig(name: ThemeName): ThemeConfig {
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
    },
  }
}
