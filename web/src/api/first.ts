/* What the first place asks for is asked at once, while the scripts are still on their way: index.html begins it. */

interface First {
  answers: { path: string; headers: Record<string, string>; body: unknown }[]
}

/* Of these the answers may be there; see server/first.go. */
const asked = /^\/api\/(player|catalogue|charts\?offset=0&limit=100|charts\/\d+\/map)$/
/** So long what was answered first is as good as asked, in milliseconds. */
const good = 5000

/** Answers to what is asked first, each given once; the rest, and whatever follows a change, is asked as ever. */
export function answersFirst(ask: (input: Request | string) => Promise<Response>, now = () => performance.now()) {
  const began = now()
  let there: Promise<Map<string, First['answers'][number]>> | undefined = ask('/api/first')
    .then(async (r) => new Map(r.ok ? ((await r.json()) as First).answers.map((a) => [a.path, a]) : []))
    .catch(() => new Map())
  return async (request: Request) => {
    const { pathname, search } = new URL(request.url)
    // That a chart was opened changes nothing of these but their order.
    const changes = request.method !== 'GET' && !pathname.endsWith('/opened')
    if (changes || now() - began > good) there = undefined
    const path = pathname + search
    if (there && asked.test(path)) {
      const answers = await there
      const { headers, body } = answers.get(path) ?? {}
      if (answers.delete(path)) return new Response(JSON.stringify(body), { headers })
    }
    return ask(request)
  }
}
