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
  build: { target: 'es2022', chunkSizeWarningLimit: 900, assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://127.0.0.1:8420' }, fs: { allow: ['..'] } },
  test: { include: ['src/**/*.test.ts'] },
})
