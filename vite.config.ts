import vue from '@vitejs/plugin-vue'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import components from 'unplugin-vue-components/vite'
import { resolve } from 'node:path'
import { defineConfig, normalizePath } from 'vite'

/** Where `npm run dev` has the server listening; the page passes its requests on. */
const apiPort = process.env['JADEFELL_API_PORT'] ?? '4748'

/** What is reckoned and what is agreed. */
const OF_NO_EFFECT = ['core/', 'contracts/'].map((folder) =>
  normalizePath(resolve(import.meta.dirname, folder)),
)

export default defineConfig({
  root: 'web',
  plugins: [
    vue(),
    components({ dts: false, dirs: [], resolvers: [ElementPlusResolver({ importStyle: 'css' })] }),
  ],
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    manifest: true,
    // A data: address in the style sheet would be refused by the content security policy.
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      // They do nothing by being there: of either a page carries what it uses.
      treeshake: { moduleSideEffects: (id) => !OF_NO_EFFECT.some((folder) => id.startsWith(`${folder}/`)) },
      checks: { circularDependency: true },
      onLog(level, log, next) {
        if (log.code === 'CIRCULAR_DEPENDENCY' && !log.message.includes('node_modules'))
          throw new Error(log.message)
        next(level, log)
      },
    },
  },
  server: {
    host: '127.0.0.1',
    port: Number(process.env['PORT'] ?? 4747),
    strictPort: true,
    proxy: { '/api': `http://127.0.0.1:${apiPort}` },
  },
})
