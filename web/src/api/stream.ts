/** The lines of an answer that comes piece by piece, each as soon as it is there. Throws where there is none. */
export async function* streamed<Line>(url: string, signal: AbortSignal): AsyncGenerator<Line> {
  const answer = await fetch(url, { method: 'POST', signal })
  const reader = answer.body?.getReader()
  if (!answer.ok || !reader) throw new Error(answer.statusText)
  const decoder = new TextDecoder()
  let rest = ''
  for (;;) {
    const { done, value } = await reader.read()
    if (done) return
    rest += decoder.decode(value, { stream: true })
    const whole = rest.split('\n')
    rest = whole.pop() ?? ''
    for (const text of whole.filter(Boolean)) yield JSON.parse(text) as Line
  }
}
