import { type ChildProcess, spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** A port that nobody has just now. */
const freePort = () =>
  new Promise<number>((done) => {
    const probe = createServer()
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number }
      probe.close(() => done(port))
    })
  })

/** The program with the demo farm in a file of its own, to be killed and started again at the same address. */
export class Program {
  private readonly folder = mkdtempSync(join(tmpdir(), 'zymarch-'))
  private child: ChildProcess | null = null
  private isMade = false

  private constructor(readonly port: number) {}

  static async begun(): Promise<Program> {
    const program = new Program(await freePort())
    await program.start()
    return program
  }

  get address(): string {
    return `http://127.0.0.1:${this.port}`
  }

  async start() {
    const data = join(this.folder, 'demo.sqlite')
    // The farm is made once, and afterwards it is the one in the file.
    const how = this.isMade ? 'serve' : 'demo'
    this.isMade = true
    const words = [how, '--data', data, '--port', String(this.port), '--now', '2026-03-14T08:00']
    this.child = spawn(process.env.ZYMARCH_PROGRAM ?? '../target/debug/zymarch', words, { stdio: 'ignore' })
    for (let tries = 0; tries < 200; tries++) {
      const answer = await fetch(`${this.address}/api/sites`).catch(() => null)
      if (answer?.ok) return
      await new Promise((done) => setTimeout(done, 100))
    }
    throw new Error('the program does not start')
  }

  /** Without a word, as when the power fails. */
  async kill() {
    const { child } = this
    this.child = null
    if (!child) return
    const gone = new Promise((done) => child.once('exit', done))
    child.kill('SIGKILL')
    await gone
  }

  async end() {
    await this.kill()
    rmSync(this.folder, { recursive: true, force: true })
  }

  /** What it answers to a question. */
  async answer<T>(path: string): Promise<T> {
    return (await (await fetch(`${this.address}${path}`)).json()) as T
  }
}
