import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { fileURLToPath, URL } from 'node:url'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

/** Below this a file is not worth a second one beside it [bytes]. */
const SHORT = 400

/** What is text lies packed beside itself, so that the server packs nothing. */
function packed(): Plugin {
  let folder = ''
  return {
    name: 'packed',
    apply: 'build',
    configResolved: ({ root, build }) => void (folder = `${root}/${build.outDir}/assets`),
    closeBundle() {
      for (const name of readdirSync(folder).filter((one) => /\.(js|css|svg)$/.test(one))) {
        const text = readFileSync(`${folder}/${name}`)
        if (text.length < SHORT) continue
        const best = { params: { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY } }
        writeFileSync(`${folder}/${name}.br`, brotliCompressSync(text, best))
        writeFileSync(`${folder}/${name}.gz`, gzipSync(text, { level: 9 }))
      }
    },
  }
}

export default defineConfig({
  plugins: [vue(), packed()],
  resolve: {
    alias: {
      '@': fileURLToPath(new URL('./src', import.meta.url)),
      '@locales': fileURLToPath(new URL('../locales', import.meta.url)),
    },
  },
  // What only a debugger or an older way of writing needs is left out.
  define: { __VUE_I18N_FULL_INSTALL__: false, __VUE_I18N_LEGACY_API__: false, __INTLIFY_PROD_DEVTOOLS__: false },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    assetsInlineLimit: 0,
    rolldownOptions: {
      output: {
        // Two scripts for the first page: what changes seldom, and our own.
        codeSplitting: {
          groups: [
            { name: 'library', test: /node_modules/, tags: ['$initial'] },
            { name: 'bench', test: /src|locales|plugin-vue|rolldown/, tags: ['$initial'] },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' }, fs: { allow: ['..'] } },
  test: { include: ['src/**/*.test.ts'] },
})
