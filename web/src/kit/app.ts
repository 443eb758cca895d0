import type { App } from 'vue'

let app: App | null = null

/** Tells which app is running, for what is added to it later. */
export const isRunning = (one: App) => void (app = one)
/** The app that is running; none in tests of parts. */
export const running = () => app
