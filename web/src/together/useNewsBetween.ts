/* What tabs of this browser tell each other goes on to other devices, and comes from them: once each. */
import type { News, Wire } from './wire'

/** As many are remembered, so that nothing goes round. */
const remembered = 64

export function newsBetween(
  channel: Pick<BroadcastChannel, 'postMessage' | 'onmessage'>,
  wire: () => Pick<Wire, 'say'> | undefined,
) {
  const seen: string[] = []
  const fresh = ({ path, version }: News) => {
    const key = `${path} ${version}`
    if (seen.includes(key)) return false
    seen.push(key)
    if (seen.length > remembered) seen.shift()
    return true
  }
  channel.onmessage = ({ data }: MessageEvent<News>) => {
    if (data?.path && data.version && fresh(data)) wire()?.say({ news: { path: data.path, version: data.version } })
  }
  /** Something came from elsewhere. */
  return (news: News) => {
    if (fresh(news)) channel.postMessage(news)
  }
}
