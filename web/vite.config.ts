import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [vue()],
  server: { proxy: { '/api': 'http://127.0.0.1:7400', '/fonts': 'http://127.0.0.1:7400' } },
  build: {
    target: 'es2022',
    // Fonts stay files of their own: the policy allows no data: fonts.
    assetsInlineLimit: 0,
    // What counts is the compressed size of the first load: scripts/check-size.mjs.
    chunkSizeWarningLimit: 700,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'three', test: /node_modules\/three\//, priority: 3 },
            { name: 'vue', test: /node_modules\/(@vue|vue|vue-router|pinia|@vueuse)\//, priority: 2 },
            {
              name: 'antd',
              test: /node_modules\/(ant-design-vue|@ant-design|@ctrl|dayjs|lodash-es|stylis|@emotion)\//,
              priority: 1,
            },
          ],
        },
      },
    },
  },
})
