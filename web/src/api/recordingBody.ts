/* Of what is kept of a recording, the part that is edited. */
import { without } from '../document/parts'
import type { RecordingBody } from './client'

export const recordingBody = (r: RecordingBody): RecordingBody =>
  without(r, 'id', 'version', 'bytes', 'media', 'hash', 'updated')
