// The one place where Ant Design Vue is dressed.
import type { ThemeConfig } from 'ant-design-vue/es/config-provider/context'

export const theme: ThemeConfig = {
  token: {
    colorPrimary: '#a8432a',
    colorInfo: '#35658c',
    colorSuccess: '#587a4a',
    colorWarning: '#b9770e',
    colorError: '#a3282b',
    colorErrorBg: '#f6e3da',
    colorErrorBorder: '#d9a79b',
    colorWarningBg: '#fbf1dc',
    colorWarningBorder: '#e3c78f',
    colorText: '#1f2b38',
    colorTextSecondary: '#41505f',
    colorTextPlaceholder: '#6f7c88',
    colorBorder: '#d8c9af',
    colorBorderSecondary: '#e9dfcd',
    colorBgContainer: '#ffffff',
    colorBgElevated: '#fffdf9',
    colorBgLayout: '#f5efe4',
    borderRadius: 6,
    controlHeight: 30,
    fontFamily: "'Figtree Variable', sans-serif",
    fontSize: 13,
    boxShadow: '0 4px 14px #1f2b3824',
    boxShadowSecondary: '0 4px 14px #1f2b3824',
    wireframe: false,
  },
  components: {
    Button: { paddingContentHorizontal: 11 },
    Segmented: { colorBgLayout: '#fffdf9' },
    Slider: {
      colorPrimaryBorder: '#a8432a',
      colorPrimaryBorderHover: '#a8432a',
      colorFillTertiary: '#d8c9af',
      colorFillSecondary: '#d8c9af',
    },
  },
}
