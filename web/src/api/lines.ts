import { type ProblemDetails, Refused } from './client'

/** What an answer tells line by line, each as soon as it is there. */
export async function* linesOf<T>(response: Response): AsyncGenerator<T> {
  if (!response.ok) throw new Refused((await response.json()) as ProblemDetails)
  let rest = ''
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
  for (;;) {
    const { done, value } = await reader.read()
    rest += value ?? ''
    const lines = rest.split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines) yield JSON.parse(line) as T
    if (done) return
  }
}
