// Package exercise turns what lies on the neck into lines to practise.
//
// A run becomes eighths up and down; a crossing becomes each of its moves on the
// change; a thread becomes one long note for each chord. From them come the
// drills: orders of four tones, up one chord and down the next, thirds and
// sixths, ladders of scales, approach notes. Each is one entry in [Drills].
package exercise
