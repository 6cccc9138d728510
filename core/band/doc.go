// Package band turns a chart into a performance.
//
// [Play] writes drums, bass and comping for as many choruses as asked for. The
// bass walks on chord tones and leads into each change; the comping holds the
// third and the seventh and moves them as little as it can. The same chart,
// groove and seed give the same performance, note for note.
package band
